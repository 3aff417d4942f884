import { DapploError } from '@dapplo/node'
import type { Command } from 'commander'
import { frameOf, withFrameFlags } from '../flags.ts'
import { say } from '../say.ts'
import { serveChart } from '../serving.ts'

export function addServe(program: Command): void {
  withFrameFlags(
    program
      .command('serve')
      .summary('serve a chart that reloads when its files change')
      .description(
        'Serves a .chart.json file on this machine: / is the page, /embed the same for frames in other pages, /chart.svg and /chart.png its picture, /oembed its oEmbed answer. The page reloads when the description or its data change, and says what is wrong when something is.',
      )
      .argument('<input>', 'a .chart.json file')
      .option('--port <number>', 'default a free one')
      .option('--host <name>', 'who may ask; default 127.0.0.1, this machine only'),
  )
    .addHelpText('after', '\nExample:\n  dapplo serve demo-data/passengers.chart.json --port 8080')
    .action(async (input: string, flags: Record<string, any>) => {
      const port = flags.port === undefined ? 0 : Number(flags.port)
      if (!(Number.isInteger(port) && port >= 0 && port < 65_536))
        throw new DapploError(
          'bad-flag',
          `"${flags.port}" is no port`,
          '--port',
          'Write a number up to 65535.',
        )
      const serving = await serveChart(input, { port, host: flags.host, frame: frameOf(flags, input) })
      say(`${serving.url}\n`)
      await new Promise<void>(resolve => {
        process.once('SIGINT', resolve)
        process.once('SIGTERM', resolve)
      })
      await serving.close()
    })
}
