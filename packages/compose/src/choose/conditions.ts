import type { SettingPath } from '@dapplo/core/sentence'
import { setAt, valueAt } from './edits.ts'
import type { Option, Place } from './model.ts'

/** The commonest names of a column. */
export function namesOf({ look }: Place, phrase: string): string[] {
  const column = look.columns.find(({ name }) => name === phrase)
  return column?.commonest?.map(([name]) => name) ?? []
}

/** What a condition could be: each name alone, with those that are meant already, or anything but it. */
export function conditionsFor(place: Place, where: SettingPath, phrase: string): Option[] {
  const { description } = place
  const path = [...where, phrase]
  const now = valueAt(description, path)
  const meant = (Array.isArray(now) ? now : typeof now === 'string' ? [now] : []) as string[]
  const options: Option[] = []
  for (const name of namesOf(place, phrase)) {
    const holes = { column: phrase, values: name }
    options.push({
      words: '{column} is {values}',
      holes,
      next: setAt(description, path, name),
      path,
      now: now === name,
    })
    if (meant.length > 0 && !meant.includes(name))
      options.push({
        words: 'or {value}',
        holes: { value: name },
        next: setAt(description, path, [...meant, name]),
        path,
        group: 'As well',
      })
    options.push({
      words: '{column} is not {values}',
      holes,
      next: setAt(description, path, { not: name }),
      path,
      group: 'All but',
    })
  }
  return options
}
