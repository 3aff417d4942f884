import { dirname, join } from 'node:path'
import { answeredElsewhere } from '@dapplo/core/internal'
import { DapploError, elementScript, embedElement, embedPage, embedSnippet, writeWhole } from '@dapplo/node'
import type { Command } from 'commander'
import { frameOf, withChartFlags, withFrameFlags } from '../flags.ts'
import { arrived, chartOf, openInput, readingFlags } from '../input.ts'
import { tell } from '../say.ts'

export function addEmbed(program: Command): void {
  const command = program
    .command('embed')
    .summary('write a chart for pages')
    .description(
      'Writes one HTML file that shows the chart before scripts run, then comes alive, and needs no network; or, with --as, a piece of HTML for a page of your own.',
    )
    .argument('<input>', 'a .chart.json file, a data file with flags, or - for standard input')
    .requiredOption('-o, --out <file>', 'where to write, such as page.html')
    .option(
      '--as <what>',
      'page (default), snippet (a picture without scripts), or element (a <dapplo-chart> with its data)',
    )
  command.option(
    '--with-script',
    'with --as element: write the script of the element beside the page, and load it from there',
  )
  withFrameFlags(withChartFlags(command))
    .addHelpText(
      'after',
      '\nExamples:\n  dapplo embed demo-data/passengers.chart.json --out page.html\n  dapplo embed demo-data/passengers.chart.json --as element --with-script --out part.html',
    )
    .action(async (input: string, flags: Record<string, any>) => {
      if (!/\.html?$/i.test(flags.out))
        throw new DapploError(
          'bad-flag',
          `${flags.out} is no page`,
          '--out',
          'Name a file that ends in .html.',
        )
      const opened = await openInput(input, readingFlags(flags))
      const chart = chartOf(opened, flags)
      await arrived(chart)
      const frame = frameOf(flags, input, opened.house)
      const { tables } = opened
      if (flags.as !== 'snippet' && Object.values(tables).some(answeredElsewhere))
        tell(`${flags.out} has the values as they are now; it does not ask the database again.`)
      if (flags.withScript && flags.as !== 'element')
        throw new DapploError(
          'bad-flag',
          'Only an element needs a script beside it',
          '--with-script',
          'Write --as element, or leave --with-script out.',
        )
      switch (flags.as ?? 'page') {
        case 'page':
          return writeWhole(flags.out, embedPage(chart, { frame, tables }))
        case 'snippet':
          return writeWhole(flags.out, embedSnippet(chart, frame))
        case 'element':
          return writeElement(flags.out, flags.withScript, scriptAt =>
            embedElement(chart, { frame, tables, feeds: opened.feeds, scriptAt }),
          )
        default:
          throw new DapploError(
            'bad-flag',
            `"${flags.as}" is nothing to embed as`,
            '--as',
            'Write page, snippet or element.',
          )
      }
    })
}

/** Writes the element, where wished for with its script beside it, and says how the script is known. */
function writeElement(out: string, withScript: boolean, html: (scriptAt?: string) => string): void {
  if (!withScript) return writeWhole(out, html())
  const { name, text, integrity } = elementScript()
  writeWhole(join(dirname(out), name), text)
  writeWhole(out, html(name))
  tell(`${name} stands beside ${out}. For a page that takes it from elsewhere: integrity="${integrity}"`)
}
