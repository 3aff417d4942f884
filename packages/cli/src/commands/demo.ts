import { mkdirSync } from 'node:fs'
import { join } from 'node:path'
import { chart, DapploError, embedPage, table, toPng, toSvg, writeWhole } from '@dapplo/node'
import type { Command } from 'commander'
import { say } from '../say.ts'

const ROUTES = ['North Sound', 'Gannet Bay', 'Tern Point']

/** Two years of a ferry line, made without chance, so that there is something to draw before there are data. */
function sailings() {
  return Array.from({ length: 730 * ROUTES.length }, (_, i) => {
    const day = Math.floor(i / ROUTES.length)
    const r = i % ROUTES.length
    const season = 1 + 0.8 * Math.sin(((day - 100) / 365) * Math.PI * 2)
    const weekend = day % 7 > 4 ? 1.4 : 1
    return {
      departed: new Date(Date.UTC(2024, 0, 1 + day)).toISOString().slice(0, 10),
      route: ROUTES[r],
      passengers: Math.round((120 - r * 30) * season * weekend + ((i * 7919) % 23)),
    }
  })
}

export function addDemo(program: Command): void {
  program
    .command('demo')
    .summary('write an example of a description, its data and what becomes of them')
    .description('Writes data, a description, a picture and a page into a folder, to begin from.')
    .argument('[folder]', 'where to write', 'dapplo-demo')
    .action(async (folder: string) => {
      try {
        mkdirSync(folder, { recursive: true })
      } catch {
        throw new DapploError(
          'not-written',
          `${folder} cannot be made`,
          'folder',
          'Name a folder that may be written to.',
        )
      }
      const rows = sailings()
      const csv = ['departed,route,passengers', ...rows.map(row => Object.values(row).join(','))].join('\n')
      const description = {
        title: 'Passengers by route',
        draw: 'bar',
        x: 'month of departed',
        y: 'sum of passengers',
        color: 'route',
        arrange: 'stack',
      } as const
      const data = table(rows, { name: 'sailings' })
      const made = chart(data, description)
      const files: [string, string | Uint8Array][] = [
        ['sailings.csv', `${csv}\n`],
        [
          'passengers.chart.json',
          `${JSON.stringify({ tables: { sailings: { url: 'sailings.csv' } }, ...description }, null, 2)}\n`,
        ],
        ['passengers.svg', toSvg(made)],
        ['passengers.png', await toPng(made)],
        ['passengers.html', embedPage(made, { tables: { sailings: data } })],
      ]
      for (const [name, content] of files) {
        writeWhole(join(folder, name), content)
        say(`${join(folder, name)}\n`)
      }
      say(`\nGo on with: dapplo serve ${join(folder, 'passengers.chart.json')}\n`)
    })
}
