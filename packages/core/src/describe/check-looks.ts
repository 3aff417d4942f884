import { checkColor, checkColors } from '../finding/check-color.ts'
import { checkFormat } from '../finding/check-format.ts'
import { checkTree } from '../finding/check-tree.ts'
import { DapploError } from '../finding/error.ts'
import { quoted } from '../finding/plain-text.ts'
import type { Table } from '../table/live/table.ts'
import type { AxisOptions, Description, Drawing, Scale, Style } from './description.ts'

/** Widths, radii, dashes and strokes beyond this many pixels would cover the picture. */
const MOST_PIXELS = 1000

/** Room at the ends of a scale beyond this many times the data would leave nothing of them. */
const MOST_PAD = 100

const isObject = (value: unknown): value is object => value !== null && typeof value === 'object'

/** Options that are objects, and those whose parts are. A list is one as well, and has words of its own, such as `at`. */
const OBJECTS = ['legend', 'stamp', 'background', 'plot', 'motion', 'style'] as const
const OF_OBJECTS = ['legend', 'scales', 'axes'] as const

function noLists(description: Description): void {
  const refuse = (value: unknown, path: string) => {
    if (Array.isArray(value))
      throw new DapploError('bad-description', 'A list stands where an object belongs', path, 'Write { … }.')
  }
  for (const name of OBJECTS) refuse(description[name], name)
  for (const name of OF_OBJECTS) {
    refuse(description[name], name)
    for (const [part, value] of Object.entries(Object(description[name]))) refuse(value, `${name}.${part}`)
  }
}

/** Checks what reaches painters as it is: colours, lengths and formats. Throws `bad-color`, `bad-option`, `bad-format`. */
export function checkLooks(description: Description): void {
  const { background, scales, axes, draw } = description
  noLists(description)
  checkStyle(description.style, 'style')
  const list = Array.isArray(draw) ? draw : [draw]
  list.forEach((item, i) => {
    if (!isObject(item)) return
    const drawing = ('drawing' in item ? item.drawing : item) as Partial<Drawing<any>>
    checkStyle(drawing.style, Array.isArray(draw) ? `draw[${i}].style` : 'draw.style')
  })
  if (typeof background === 'string') checkColor(background, 'background')
  else checkColor(background?.color, 'background.color')
  checkColor(description.plot?.background, 'plot.background')
  for (const [name, scale] of Object.entries(scales ?? {}))
    if (isObject(scale)) {
      const { colors, pad, percentOf } = scale as Scale
      if (percentOf !== undefined && !(Math.abs(percentOf) >= 1e-100 && Math.abs(percentOf) <= 1e100))
        throw new DapploError(
          'bad-option',
          `${quoted(percentOf)} is no total that values could be a percentage of`,
          `scales.${name}.percentOf`,
          'Write a number other than 0, such as the total itself.',
        )
      checkColors(colors, `scales.${name}.colors`)
      if (pad !== undefined && !(typeof pad === 'number' && pad >= 0 && pad <= MOST_PAD))
        throw new DapploError(
          'bad-option',
          `${quoted(pad)} is no share of a scale to leave free`,
          `scales.${name}.pad`,
          `Write a number from 0 to ${MOST_PAD}, such as 0.1 for a tenth.`,
        )
    }
  for (const [name, axis] of Object.entries(axes ?? {})) {
    if (!isObject(axis)) continue
    const { grid, format, tickLength } = axis as AxisOptions
    checkLength(tickLength, `axes.${name}.tickLength`)
    checkFormat(format, `axes.${name}.format`)
    if (!isObject(grid)) continue
    checkColor(grid.color, `axes.${name}.grid.color`)
    checkDash(grid.dash, `axes.${name}.grid.dash`)
  }
}

function checkStyle(style: Style | undefined, path: string): void {
  if (!isObject(style)) return
  checkColor(style.color, `${path}.color`)
  checkLength(style.width, `${path}.width`)
  checkLength(style.size, `${path}.size`)
  checkDash(style.dash, `${path}.dash`)
}

function checkDash(dash: unknown, path: string): void {
  if (Array.isArray(dash)) for (const [i, length] of dash.entries()) checkLength(length, `${path}[${i}]`)
}

function checkLength(length: unknown, path: string): void {
  if (length === undefined || length === null) return
  if (typeof length === 'number' && length >= 0 && length <= MOST_PIXELS) return
  throw new DapploError(
    'bad-option',
    `${quoted(length)} is no length in pixels`,
    path,
    `Write a number from 0 to ${MOST_PIXELS}.`,
  )
}

const checked = new WeakSet<Table>()

/** Checks what the columns of a table are told about their looks. */
export function checkColumns(table: Table): void {
  if (checked.has(table)) return
  for (const name of table.names) {
    const { options } = table.column(name)!
    checkTree(options, `columns.${name}`)
    checkFormat(options.format, `columns.${name}.format`)
    checkColors(options.colors, `columns.${name}.colors`)
  }
  checked.add(table)
}
