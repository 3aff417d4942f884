import { dirname } from 'node:path'
import { firstFont } from '@dapplo/core/internal'
import { addFont, DapploError, type House, type PictureFrame } from '@dapplo/node'
import { type Command, Option } from 'commander'
import { RENAMED } from './input.ts'

/** Flags for the fields of a description; each has the field's name. */
export function withChartFlags(command: Command): Command {
  // What was called otherwise is still understood, to be answered by its new name.
  for (const old of Object.keys(RENAMED)) command.addOption(new Option(`--${old} [value]`).hideHelp())
  return withDataFlags(
    command
      .option(
        '--draw <kind>',
        'what to draw: line, area, bar, scatter, pie, heatmap, reference, trend or text',
      )
      .option('--x <phrase>', 'what goes across, such as "day of departed"')
      .option('--y <phrase>', 'what goes up, such as "sum of passengers"')
      .option('--panes <phrase>', 'splits the chart into a pane for each value, such as route')
      .option('--color <phrase>', 'what colours distinguish, such as route')
      .option('--series <phrase>', 'what distinguishes series without colour')
      .option('--shape <phrase>', 'what point shapes distinguish')
      .option('--size <phrase>', 'how large points are, such as "sum of passengers"')
      .option('--dash <phrase>', 'what dashes distinguish')
      .option('--label [phrase]', 'what stands at each shape; alone, the value that the shape shows')
      .option('--no-label', 'leave the words at shapes out')
      .option('--arrange <how>', 'bars and areas of several series: side, stack, share or overlap')
      .option('--between <how>', 'lines from point to point: direct, smooth, hold, hold middle or hold next')
      .option('--points', 'mark the points of lines')
      .option('--break-after <json>', 'lines break where nothing came for longer, such as \'{"days": 3}\'')
      .option('--values <place>', 'values of a pie inside its slices: inside')
      .option('--hollow <share>', 'the empty middle of a ring, 0 to 1')
      .option(
        '--fit <curve>',
        'the curve of a trend: linear, log, exponential, power, local, or \'{"degree": 2}\'',
      )
      .option(
        '--band [confidence]',
        'a band around a trend, in which it lies with this confidence; alone, 0.95',
      )
      .option('--top <count>', 'keep this many categories')
      .option('--rest [words]', 'gather the other categories in one')
      .option('--order <how>', 'order of categories: given, name or ranked')
      .option('--where <json>', 'which rows, such as \'{"route": "Tern Point"}\'')
      .option('--title <words>')
      .option('--subtitle <words>')
      .option('--caption <words>')
      .option('--source <words>', 'where the data come from')
      .option('--style <json>', 'constant looks, such as \'{"width": 3}\'')
      .option('--scales <json>', 'such as \'{"y": {"include": 0}}\'')
      .option('--axes <json>', 'such as \'{"y": {"title": "People"}}\'')
      .option(
        '--legend <place>',
        'where legends stand: auto, ends, top, right, bottom, left, or "inside top left" and so on',
      )
      .option('--no-legend', 'leave the legend out')
      .option(
        '--notes <json>',
        'words about something in the picture, such as \'[{"words": "Storm", "x": "2024-03-01"}]\'',
      )
      .option('--color-names', 'names of series in the title in their colours')
      .option('--plot <json>', 'the ground of the plot alone, such as \'{"background": "#eee"}\'')
      .option('--background <color>', 'a CSS colour behind everything, or JSON with an image')
      .option('--through <phrase>', 'what the chart is played through, such as year')
      .option(
        '--stamp <words>',
        'what the chart shows at the moment, such as "{year}"; JSON for a note and a place',
      )
      .option('--no-stamp', 'leave it out')
      .option('--id <name>', 'by which scripts and other charts find it on a page')
      .option('--link <phrase>', 'the address that each shape leads to')
      .option(
        '--tooltip <words>',
        'what a tooltip also says, such as "{count} sailings"; JSON for a list of phrases',
      )
      .option('--no-tooltip', 'no tooltip on pages')
      .option('--zoom <directions>', 'on pages: x, y or xy')
      .option('--select <gesture>', 'on pages: click, box or lasso; JSON for several')
      .option('--respond <how>', 'on pages, to selections elsewhere: dim, narrow or ignore')
      .option('--motion <json>', 'such as \'{"duration": 200}\'')
      .option('--no-motion', 'nothing moves')
      .option('--controls <json>', 'controls above the chart on pages'),
  )
}

/** Flags for how data are read, and which rows of a database are meant. */
export const withDataFlags = (command: Command): Command =>
  command
    .option(
      '--type <column=type...>',
      'read a column as number, time or text, its dates with the "day first" or "month first", or its numbers with a "decimal point" or "decimal comma"',
    )
    .option('--ragged <how>', '"fill" accepts lines with too few or too many cells')
    .option('--table <name>', 'of a database: the table that is meant')
    .option('--query <sql>', 'of a database: the question whose answer is the table')
    .option('--in-order <column>', 'of a database: the column that puts rows in order')

/** Flags for the frame. */
export function withFrameFlags(command: Command): Command {
  return command
    .option('--frame <width>x<height>', 'size of the picture in pixels; default 1280x800')
    .option('--density <number>', 'device pixels per pixel of a PNG; default 2')
    .option('--theme <name>', 'day or night')
    .option('--locale <tag>', 'language of numbers and dates, such as de or en-GB')
    .option(
      '--font <file...>',
      'draw words in a font from a file, TrueType, OpenType or WOFF2; a file for each weight',
    )
    .option('--transparent', 'leave the background out')
}

/** A language tag in its usual writing. */
export function localeOf(tag: string): string {
  try {
    return Intl.getCanonicalLocales(tag)[0]
  } catch {
    throw new DapploError(
      'bad-flag',
      `"${tag}" is no language tag`,
      '--locale',
      'Write one such as en, de or pt-BR.',
    )
  }
}

/** Width and height, as in 1280x800. */
export const FRAME = /^(\d{1,5})x(\d{1,5})$/

/** The frame that flags describe; pictures are looked for beside the input. */
export function frameOf(flags: Record<string, any>, input: string, house?: House): PictureFrame {
  const frame: PictureFrame = { folder: input === '-' ? '.' : dirname(input), house }
  if (flags.frame !== undefined) {
    const found = FRAME.exec(flags.frame)
    if (!found || Number(found[1]) < 10 || Number(found[2]) < 10)
      throw new DapploError(
        'bad-flag',
        `"${flags.frame}" is no size of a picture`,
        '--frame',
        'Write width and height in pixels, as in --frame 1280x800.',
      )
    frame.width = Number(found[1])
    frame.height = Number(found[2])
  }
  if (flags.density !== undefined) {
    const density = Number(flags.density)
    if (!(density > 0 && density <= 8))
      throw new DapploError(
        'bad-flag',
        `"${flags.density}" is no density`,
        '--density',
        'Write a number from 0.1 to 8.',
      )
    frame.density = density
  }
  if (flags.theme !== undefined) {
    if (flags.theme !== 'day' && flags.theme !== 'night')
      throw new DapploError(
        'bad-flag',
        `There is no theme "${flags.theme}"`,
        '--theme',
        'Write day or night.',
      )
    frame.theme = flags.theme
  }
  if (flags.locale !== undefined) frame.locale = localeOf(flags.locale)
  if (flags.font !== undefined) {
    // Where the house style names a font, these are its files.
    const named = house?.font === undefined ? undefined : firstFont(house.font)
    const [first, ...others] = flags.font as string[]
    const font = addFont(first, named)
    for (const file of others) addFont(file, font)
    frame.house = { font, ...house }
  }
  if (flags.transparent) frame.background = false
  return frame
}
