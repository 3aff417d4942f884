import type { Description } from '@dapplo/core'

const inQuotes = (text: string): string =>
  /^[\w@%+=:,./-]+$/.test(text) ? text : `'${text.replaceAll("'", "'\\''")}'`

/** A description as the arguments of `dapplo draw`, ready to be pasted. */
export function asFlags(input: string, description: Description): string {
  const flags = Object.entries(description).flatMap(([name, value]) => {
    if (value === undefined) return []
    const flag = `--${name.replace(/[A-Z]/g, letter => `-${letter.toLowerCase()}`)}`
    if (value === true) return [flag]
    return [flag, inQuotes(typeof value === 'object' ? JSON.stringify(value) : String(value))]
  })
  return [inQuotes(input), ...flags, '--out', 'chart.png'].join(' ')
}
