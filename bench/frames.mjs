// Frames of a page: how long they take, and how long those of a bare page take that fills as many pixels.

/** Milliseconds of a frame of the screen. */
const FRAME = 1000 / 60

/** The time that 95 of 100 frames stay below, in milliseconds: whole frames of the screen, as the clock of a page trembles by tenths. */
export function slowest(times) {
  const gaps = times.slice(1).map((time, i) => Math.round((time - times[i]) / FRAME) * FRAME)
  return gaps.sort((a, b) => a - b)[Math.floor(gaps.length * 0.95)]
}

/** Code for a page: calls `act` in every frame until it says that it is done; gives the times of the frames. */
export const frames = act => `new Promise(done => {
  const times = []
  const act = ${act}
  const go = now => { times.push(now); act(times.length) ? requestAnimationFrame(go) : done(times) }
  requestAnimationFrame(go)
})`

/** The times of frames in which a page does nothing but fill canvases of these sizes. */
export const bareFrames = (page, sizes) =>
  page.evaluate(`(() => {
    const contexts = ${JSON.stringify(sizes)}.map(([width, height]) => {
      const canvas = Object.assign(document.createElement('canvas'), { width, height })
      document.body.append(canvas)
      return canvas.getContext('2d')
    })
    return ${frames(`n => {
      for (const context of contexts) {
        context.fillStyle = n % 2 ? '#fdfcf9' : '#fcfdf9'
        context.fillRect(0, 0, context.canvas.width, context.canvas.height)
      }
      return n < 120
    }`)}
  })()`)

/** Records the times of a page's frames from now on, until they are asked for. */
export const recording = page =>
  page.evaluate(() => {
    window.times = []
    const go = now => {
      window.times.push(now)
      requestAnimationFrame(go)
    }
    requestAnimationFrame(go)
  })

/** Forgets the frames so far. */
export const recordAnew = page =>
  page.evaluate(() => {
    window.times.length = 0
  })

export const recorded = page => page.evaluate(() => window.times.slice())
