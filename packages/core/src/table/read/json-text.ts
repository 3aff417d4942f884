const TOKEN =
  /[ \t\r\n]*(?:([{}[\],:])|("(?:[^"\\\u0000-\u001f]|\\(?:["\\/bfnrt]|u[\da-fA-F]{4}))*")|(-?(?:0|[1-9]\d*)(?:\.\d+)?(?:[eE][+-]?\d+)?|true|false|null))/y

/**
 * Where text stops being JSON: the index of the first character that cannot stand there. Engines differ in whether
 * they tell; a person wants the line. Only meant for text that `JSON.parse` has refused.
 */
export function jsonErrorAt(text: string): number {
  const open: string[] = []
  // What may come next: a value, a key, a colon, or what follows a value.
  let next: 'value' | 'value or end' | 'key' | 'key or end' | 'colon' | 'after' = 'value'
  let at = 0
  for (;;) {
    TOKEN.lastIndex = at
    const found = TOKEN.exec(text)
    const start = at + (/^\s*/.exec(text.slice(at))?.[0].length ?? 0)
    if (!found) return start
    const [whole, mark, string] = found
    const closes = mark === '}' ? '{' : mark === ']' ? '[' : undefined
    if (closes) {
      const fits =
        open.at(-1) === closes &&
        (next === 'after' || next === (mark === '}' ? 'key or end' : 'value or end'))
      if (!fits) return start
      open.pop()
      next = 'after'
    } else if (mark === '{' || mark === '[') {
      if (!next.startsWith('value')) return start
      open.push(mark)
      next = mark === '{' ? 'key or end' : 'value or end'
    } else if (mark === ',') {
      if (next !== 'after' || open.length === 0) return start
      next = open.at(-1) === '{' ? 'key' : 'value'
    } else if (mark === ':') {
      if (next !== 'colon') return start
      next = 'value'
    } else if (next.startsWith('key')) {
      if (string === undefined) return start
      next = 'colon'
    } else if (next.startsWith('value')) next = 'after'
    else return start
    at += whole.length
  }
}

/** Whether a text holds one JSON object after another, each on lines of its own. */
export function hasManyRecords(text: string): boolean {
  for (let end = text.indexOf('}'); end >= 0; end = text.indexOf('}', end + 1)) {
    let broken = false
    let at = end + 1
    for (; at < text.length; at++) {
      const code = text.charCodeAt(at)
      if (code === 10) broken = true
      else if (code !== 13 && code !== 32 && code !== 9) break
    }
    if (broken && text.charCodeAt(at) === 123) return true
    // What has been passed over holds no brace.
    end = at - 1
  }
  return false
}
