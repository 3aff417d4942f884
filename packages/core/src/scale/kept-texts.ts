/** What is written of values, kept, since the same ones are written again and again; no more than `most` at a time. */
export function keptTexts(write: (value: number) => string, most: number): (value: number) => string {
  const texts = new Map<number, string>()
  return value => {
    let text = texts.get(value)
    if (text === undefined) {
      text = write(value)
      if (texts.size === most) texts.clear()
      texts.set(value, text)
    }
    return text
  }
}
