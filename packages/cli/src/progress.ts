const WIDTH = 24

/** A bar with an estimate of what is left, on standard error and only on a terminal. */
export function progressBar(words: string): { show(done: number, all: number): void; end(): void } {
  if (!process.stderr.isTTY) return { show: () => undefined, end: () => undefined }
  const start = Date.now()
  let shown = 0
  return {
    show(done, all) {
      const now = Date.now()
      if (now - shown < 80 && done < all) return
      shown = now
      const full = Math.round((done / all) * WIDTH)
      const left = Math.ceil((((now - start) / done) * (all - done)) / 1000)
      const bar = '█'.repeat(full) + '·'.repeat(WIDTH - full)
      process.stderr.write(
        `\r${words} ${bar} ${done} of ${all}${done < all ? `, about ${left} s left` : ''}   `,
      )
    },
    end() {
      if (shown > 0) process.stderr.write('\r\u001b[2K')
    },
  }
}
