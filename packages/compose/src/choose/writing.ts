import type { Drawn, SettingPath } from '@dapplo/core/sentence'
import type { Writing } from './model.ts'

const FREE_WORDS = new Set([
  'title',
  'subtitle',
  'caption',
  'source',
  'stamp',
  'name',
  'id',
  'against',
  'detailOf',
  'tooltip',
  'color',
  'background',
])
const FREE_NUMBERS = new Set([
  'top',
  'hollow',
  'band',
  'breakAfter',
  'width',
  'opacity',
  'size',
  'gap',
  'degree',
  'include',
  'pad',
  'percentOf',
  'each',
  'radius',
  'columns',
])

/** What may be written freely at a place: words, a colour, or a number. */
export function freeWriting<D extends Drawn>(
  path: SettingPath,
  value: unknown,
  set: (value: unknown) => D,
): Writing[] {
  const key = path.findLast((part): part is string => typeof part === 'string') ?? ''
  const inStyle = path.includes('style')
  const text = typeof value === 'string' ? value : ''
  const words = key === 'rest' || (FREE_WORDS.has(key) && (key !== 'color' || inStyle))
  if (words || path.includes('colors'))
    return [
      writingOf(words ? 'In other words' : 'A colour', text, 'words', text => (text ? set(text) : undefined)),
    ]
  if (FREE_NUMBERS.has(key) && (key !== 'size' || inStyle))
    return [
      writingOf('Another number', value, 'number', text =>
        Number.isFinite(Number(text)) && text !== '' ? set(Number(text)) : undefined,
      ),
    ]
  return []
}

export const writingOf = (
  label: string,
  value: unknown,
  kind: Writing['kind'],
  next: Writing['next'],
): Writing => ({
  label,
  value: value === undefined || value === null || typeof value === 'object' ? '' : String(value),
  kind,
  next,
})

/** A number where it is one; else what was written, such as a date. */
export const readValue = (text: string): string | number =>
  text.trim() !== '' && Number.isFinite(Number(text)) ? Number(text) : text.trim()
