import { spawn, spawnSync } from 'node:child_process'
import {
  existsSync,
  lstatSync,
  mkdirSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  rmSync,
  statSync,
  symlinkSync,
  writeFileSync,
} from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, describe, expect, test } from 'vitest'
import { demoData } from './support/demo.ts'
import { everything } from './support/extent.ts'

const root = join(import.meta.dirname, '..')
const folder = mkdtempSync(join(tmpdir(), 'dapplo-cli-'))
afterAll(() => rmSync(folder, { recursive: true }))
const file = (name: string, content?: string) => {
  const path = join(folder, name)
  if (content !== undefined) writeFileSync(path, content)
  return path
}
const demo = demoData()
afterAll(() => rmSync(demo, { recursive: true }))
const sailings = join(demo, 'sailings.csv')
const passengers = join(demo, 'passengers.chart.json')
/** All of it, where figures are looked at. */
const whole = (name: string) => join(root, 'demo-data', name)

function dapplo(args: string[], input?: string) {
  const { status, stdout, stderr } = spawnSync(
    process.execPath,
    [join(root, 'packages/cli/dist/dapplo.js'), ...args],
    { encoding: 'utf8', input: input ?? '', cwd: folder, maxBuffer: 1e8 },
  )
  return { status, stdout, stderr }
}
const flags = ['--draw', 'line', '--x', 'day of departed', '--y', 'sum of passengers', '--color', 'route']

describe('draw', () => {
  test('writes SVG to standard output, the same from flags, a description and standard input', () => {
    const words = [
      '--title',
      'Passengers by route',
      '--subtitle',
      'Daily totals of the Skerry Line, 2023 to 2025',
      '--source',
      'Source: sailings.csv',
    ]
    const fromFlags = dapplo(['draw', whole('sailings.csv'), ...flags, ...words])
    expect(fromFlags.status).toBe(0)
    expect(fromFlags.stdout).toMatch(/^<svg /)
    for (const word of ['North Sound', 'Kelp Narrows', '1,400', 'January', '2024'])
      expect(fromFlags.stdout).toContain(`>${word}</text>`)
    expect(fromFlags.stderr).toContain('2 cells of "passengers" are no numbers')
    expect(dapplo(['draw', whole('passengers.chart.json')]).stdout).toBe(fromFlags.stdout)
    expect(
      dapplo(['draw', '-', ...flags, ...words], readFileSync(whole('sailings.csv'), 'utf8')).stdout,
    ).toBe(fromFlags.stdout)
  })

  test('writes PNG of the size and density asked for', () => {
    const out = file('chart.png')
    expect(
      dapplo(['draw', passengers, '--frame', '640x400', '--density', '1.5', '--theme', 'night', '--out', out])
        .status,
    ).toBe(0)
    const png = readFileSync(out)
    expect(png.subarray(1, 4).toString()).toBe('PNG')
    expect([png.readUInt32BE(16), png.readUInt32BE(20)]).toEqual([960, 600])
  })

  test('flags change a description, and findings fail it only under --strict', () => {
    const bars = dapplo([
      'draw',
      passengers,
      '--draw',
      'bar',
      '--x',
      'month of departed',
      '--title',
      'Months',
    ])
    expect(bars.stdout).toContain('>Months</text>')
    expect(bars.stdout).toContain('Bar chart of passengers per month by route.')
    expect(dapplo(['draw', passengers, '--strict']).status).toBe(1)
  })
})

describe('pictures as labels', () => {
  const description = (href: string) =>
    JSON.stringify({
      tables: { piers: { rows: [{ pier: 'Old Mole', n: 3 }] } },
      draw: 'bar',
      x: 'pier',
      y: 'n',
      axes: { x: { images: { 'Old Mole': href } } },
    })

  test('come from files beside the description, and are written into SVG and PNG', () => {
    file(
      'mole.svg',
      '<svg xmlns="http://www.w3.org/2000/svg" width="20" height="20"><rect width="20" height="20" fill="#f00"/></svg>',
    )
    const input = file('pictured.chart.json', description('mole.svg'))
    expect(dapplo(['draw', input]).stdout).toContain('href="data:image/svg+xml;base64,')
    const out = file('pictured.png')
    expect(dapplo(['draw', input, '--out', out]).status).toBe(0)
    expect(readFileSync(out).length).toBeGreaterThan(1000)
  })

  test.each([
    ['a file that is not there', 'none.png', 'There is no picture none.png'],
    ['a file outside the folder', '../secret.png', 'lies outside the folder'],
    ['a file of another kind', 'mole.txt', 'is no picture of a known kind'],
  ])('%s is one plain error', (_, href, sentence) => {
    const { status, stderr } = dapplo(['draw', file('bad.chart.json', description(href))])
    expect(stderr).toContain(sentence)
    expect(status).toBe(2)
  })
})

test('a spread is drawn from its file, with the table that each chart names', () => {
  const { status, stdout } = dapplo([
    'draw',
    file(
      'two.chart.json',
      JSON.stringify({
        tables: {
          a: { rows: [{ k: 'Tern', n: 1 }] },
          b: { rows: { k: ['Mole', 'Quay'], n: [2, 3] }, shape: [{ sort: 'n', order: 'down' }] },
        },
        title: 'Two',
        spread: [
          { draw: 'bar', x: 'k', y: 'n' },
          { table: 'b', draw: 'bar', x: 'k', y: 'n' },
        ],
      }),
    ),
  ])
  expect(status).toBe(0)
  for (const word of ['Two', 'Tern', 'Mole', 'Quay']) expect(stdout).toContain(`>${word}</text>`)
  expect(stdout.indexOf('>Quay</text>')).toBeLessThan(stdout.indexOf('>Mole</text>'))
})

describe('look', () => {
  test('shows columns for people and for programs', () => {
    const { status, stdout } = dapplo(['look', whole('sailings.csv')])
    expect(status).toBe(0)
    expect(stdout).toContain('sailings: 19,197 rows, 10 columns')
    expect(stdout).toMatch(/departed +time +7,656 +2023-01-01 06:30 to 2025-12-31 19:30/)
    expect(stdout).toContain('passengers: 2 cells are no numbers, first "full" in line 4212')
    const look = JSON.parse(dapplo(['look', whole('sailings.csv'), '--json']).stdout)
    expect(look.columns.find((column: { name: string }) => column.name === 'route').commonest[0]).toEqual([
      'North Sound',
      5532,
    ])
  })
})

describe('suggest and describe', () => {
  test('name charts with the command that draws each, which draws it', () => {
    const { status, stdout } = dapplo(['suggest', sailings, '--most', '7'])
    expect(status).toBe(0)
    expect(stdout).toContain(
      '1. Draw lines of sum of passengers over month of departed, one colour per route.\n   Why: passengers over time, one line for each route.',
    )
    const drawn = [...stdout.matchAll(/^ {3}dapplo (draw .*) --out chart\.png$/gm)]
    expect(drawn.length).toBe(7)
    for (const [, line] of everything ? drawn : drawn.slice(0, 3)) {
      const args = [...line.matchAll(/'([^']*)'|(\S+)/g)].map(([, quoted, plain]) => quoted ?? plain)
      expect(dapplo(args).stdout).toContain('<svg')
    }
    const [first] = JSON.parse(dapplo(['suggest', sailings, '--json', '--most', '1']).stdout)
    expect(first.description).toEqual({
      draw: 'line',
      x: 'month of departed',
      y: 'sum of passengers',
      color: 'route',
    })
    expect(dapplo(['suggest', '-'], 'pier,boats\n').stdout).toContain('so there is nothing to show')
    expect(dapplo(['suggest', passengers]).stderr).toContain('is a description, not data')
    expect(dapplo(['suggest', sailings, '--most', 'some']).stderr).toContain('Write a whole number from 1.')
  })

  test('say what a description draws, in two languages, and what has no words', () => {
    expect(dapplo(['describe', passengers]).stdout).toContain(
      'Draw lines of sum of passengers over day of departed, one colour per route. The title is “Passengers by route”.',
    )
    expect(dapplo(['describe', passengers, '--locale', 'de']).stdout).toContain(
      'Zeichne über Tag von departed Linien für Summe von passengers, je route eine Farbe.',
    )
    const noted = JSON.stringify({
      tables: { piers: { rows: [{ pier: 'Old Mole', boats: 3 }] } },
      draw: 'bar',
      x: 'pier',
      y: 'boats',
      notes: [{ words: 'New', x: 'Old Mole' }],
      plot: { background: '#fff' },
    })
    expect(dapplo(['describe', '-'], noted).stdout).toBe(
      'Draw bars of boats for each pier. A note at Old Mole says “New”. And settings of its own.\n   (plot)\n',
    )
    const two = JSON.stringify({
      tables: { piers: { rows: [{ pier: 'Old Mole', boats: 3 }] } },
      spread: [
        { draw: 'bar', x: 'pier', y: 'boats' },
        { draw: 'pie', color: 'pier', y: 'boats' },
      ],
      title: 'Two ways',
    })
    expect(dapplo(['describe', '-'], two).stdout).toBe(
      '1. Draw bars of boats for each pier.\n2. Draw slices of boats, one colour per pier.\nThe title is “Two ways”.\n',
    )
    expect(dapplo(['describe', sailings]).stdout).toContain('holds data and no description')
    expect(dapplo(['describe', passengers, '--locale', 'fr']).stderr).toContain('Write en or de.')
    expect(dapplo(['describe', passengers, '--locale', 'd_e!']).stderr).toContain('is no language tag')
  })
})

describe('embed', () => {
  test('writes one page that holds picture, data and program, and asks for nothing else', () => {
    const out = file('page.html')
    expect(dapplo(['embed', passengers, '--out', out]).status).toBe(0)
    const page = readFileSync(out, 'utf8')
    expect(page).toContain('<svg ')
    expect(page).toContain("default-src 'none'")
    // What the program holds as text is no part of the page.
    const markup = page.replace(/<script[^>]*>[\s\S]*?<\/script>/g, '')
    expect(markup.match(/(?:src|href)="[^"#]*"/g) ?? []).toEqual([])
  })
})

describe('bad input is one sentence and exit 2, and leaves no file', () => {
  const explained = dapplo(['explain'])
    .stdout.split('\n')
    .map(line => line.split(' ')[0])
  // What is wrong is not in the rows.
  const few = file('few.csv', readFileSync(sailings, 'utf8').split('\n').slice(0, 40).join('\n'))
  test.each([
    ['a missing file', ['draw', 'nowhere.csv', ...flags], 'There is no file nowhere.csv'],
    ['a folder', ['draw', '.', ...flags], '. cannot be read: it is a folder'],
    [
      'an unknown column',
      ['draw', few, ...flags.slice(0, 5), 'sum of pasengers'],
      'Did you mean "sum of passengers"?',
    ],
    [
      'an unknown phrase',
      ['draw', few, ...flags.slice(0, 5), 'total of passengers'],
      '"total of" begins no phrase',
    ],
    [
      'an unknown kind',
      ['draw', few, '--draw', 'lines', '--x', 'departed', '--y', 'count'],
      'Did you mean "line"?',
    ],
    ['no kind', ['draw', few], 'What shall be drawn?'],
    ['an empty CSV', ['draw', file('empty.csv', ''), ...flags], 'There is nothing in empty.csv'],
    [
      'ragged rows',
      [
        'draw',
        file('ragged.csv', 'departed,passengers\n2024-01-01,2\n2024-01-02,3,4\n'),
        ...flags.slice(0, 6),
      ],
      'Line 3 of ragged.csv has 3 cells, but the header names 2 columns',
    ],
    [
      'no JSON',
      ['draw', file('broken.chart.json', '{ "tables": {},\n "draw" }')],
      'broken.chart.json line 2 is not JSON',
    ],
    ['a description of nothing', ['draw', file('none.chart.json', '[]')], 'is not a description'],
    [
      'a misspelt option',
      [
        'draw',
        file(
          'odd.chart.json',
          '{ "tables": { "t": { "rows": [{"a": 1}] } }, "draw": "line", "x": "a", "y": "a", "tittle": "x" }',
        ),
      ],
      'Did you mean "title"?',
    ],
    [
      'a missing table file',
      [
        'draw',
        file(
          'lost.chart.json',
          '{ "tables": { "t": { "url": "lost.csv" } }, "draw": "line", "x": "a", "y": "a" }',
        ),
      ],
      'There is no file',
    ],
    ['an unknown format', ['draw', passengers, '--out', 'x.bmp'], 'There is no format "bmp"'],
    ['a bad size', ['draw', passengers, '--frame', 'big'], '"big" is no size of a picture'],
    ['a size by its old name', ['draw', passengers, '--size', '640x400'], 'Write --frame 640x400.'],
    ['a folder that is not there', ['draw', passengers, '--out', 'no/where.svg'], 'there is no folder no'],
    ['an unknown flag', ['draw', passengers, '--wings', 'route'], "unknown option '--wings'"],
    ['a flag in other words', ['draw', passengers, '--colour', 'route'], 'Write --color instead.'],
    ['a format by its name', ['draw', passengers, '--format', 'png'], 'as in --out chart.png.'],
    ['an unknown command', ['drow', passengers], "unknown command 'drow'"],
  ])('%s', (_, args, sentence) => {
    const before = readdirSync(folder).length
    const { status, stdout, stderr } = dapplo(args)
    expect(stderr).toContain(sentence)
    expect(stderr).not.toMatch(/\n\s+at /)
    expect(status).toBe(2)
    expect(stdout).toBe('')
    expect(readdirSync(folder).length).toBe(before)
    // What is amiss in the arguments themselves has no code.
    const code = /\[([a-z-]+)\]\n$/.exec(stderr)?.[1]
    if (code === undefined) expect(stderr).toContain('Run dapplo --help')
    else expect(explained).toContain(code)
  })

  test('explain says when a code is said and what helps', () => {
    const { stdout, status } = dapplo(['explain', '[not-on-log]'])
    expect(status).toBe(0)
    expect(stdout).toMatch(/^not-on-log\nA finding/)
    expect(stdout).toMatch(/→ \w+/)
    expect(dapplo(['explain', 'not-on-lag']).stderr).toContain('Did you mean "not-on-log"?')
  })

  test('a failure leaves the file that was there as it was', () => {
    const out = file('kept.svg', 'before')
    expect(dapplo(['draw', few, '--draw', 'line', '--x', 'nope', '--y', 'count', '--out', out]).status).toBe(
      2,
    )
    expect(readFileSync(out, 'utf8')).toBe('before')
    expect(existsSync(`${out}.part`)).toBe(false)
  })
})

describe('names from anywhere', () => {
  const hostile = '\u001b]0;title\u0007\u009b31m\u202egnp'
  const spoils = /[\u0000-\u0008\u000b-\u001f\u007f-\u009f\u202a-\u202e]/
  test.each([
    ['look', ['look', '-'], `${hostile},n\n${hostile},1\n${hostile},2\n`],
    ['look as JSON', ['look', '-', '--json'], `${hostile},n\n${hostile},1\n`],
    ['an error', ['draw', '-', '--draw', 'line', '--x', hostile, '--y', hostile], 'a,b\n1,2\n'],
    ['a flag', ['draw', '-', `--${hostile}`], 'a,b\n1,2\n'],
    ['a file', ['look', hostile], ''],
    [
      'a finding',
      ['draw', '-', '--draw', 'bar', '--x', hostile, '--y', 'n', '--as-text'],
      `${hostile},n\n${hostile},x\n${hostile},2\n${hostile},3\nb,4\nc,5\nd,6\ne,7\nf,8\ng,9\nh,1\ni,1\n`,
    ],
  ])('write no control characters to a terminal: %s', (_, args, input) => {
    const { stdout, stderr } = dapplo(args, input)
    expect((stdout + stderr).length).toBeGreaterThan(10)
    expect(stdout).not.toMatch(spoils)
    expect(stderr).not.toMatch(spoils)
  })
})

describe('files', () => {
  const draw = (out: string) => dapplo(['draw', passengers, '--frame', '200x120', '--out', out])

  test('a folder, a full device and a link are met with care', () => {
    mkdirSync(file('made.svg'))
    expect(draw(file('made.svg'))).toMatchObject({
      status: 2,
      stderr: expect.stringContaining('it is a folder'),
    })
    writeFileSync(file('target.svg'), 'before')
    symlinkSync(file('target.svg'), file('link.svg'))
    expect(draw(file('link.svg')).status).toBe(0)
    expect(lstatSync(file('link.svg')).isSymbolicLink()).toBe(true)
    expect(readFileSync(file('target.svg'), 'utf8')).toContain('<svg')
    expect(readdirSync(folder).filter(name => name.endsWith('.part'))).toEqual([])
  })

  test.skipIf(!existsSync('/dev/full'))('a device that is full is named as such, and stays a device', () => {
    symlinkSync('/dev/full', file('full.svg'))
    const { status, stderr } = draw(file('full.svg'))
    expect([status, stderr]).toEqual([2, expect.stringContaining('the disk is full')])
    expect(statSync('/dev/full').isFile()).toBe(false)
    const shell = spawnSync(
      'sh',
      [
        '-c',
        `"${process.execPath}" "${join(root, 'packages/cli/dist/dapplo.js')}" look "${sailings}" > /dev/full`,
      ],
      { encoding: 'utf8' },
    )
    expect(shell.status).toBe(2)
    expect(shell.stderr).toBe('dapplo: Standard output cannot be written: the disk is full.\n')
  })

  test.each(['gif', 'apng'])('an interrupted %s ends at once, and leaves the old file', async format => {
    const out = file(`film.${format}`, 'before')
    const running = spawn(
      process.execPath,
      [
        join(root, 'packages/cli/dist/dapplo.js'),
        'draw',
        passengers,
        '--frame',
        '1200x800',
        '--rate',
        '60',
        '--out',
        out,
      ],
      { stdio: 'ignore' },
    )
    const ended = new Promise<[number | null, string | null]>(resolve =>
      running.once('exit', (code, signal) => resolve([code, signal])),
    )
    // Long enough to be at work, far too short to be done.
    await new Promise(resolve => setTimeout(resolve, 1500))
    expect(running.exitCode).toBeNull()
    running.kill('SIGINT')
    expect(await ended).toEqual([null, 'SIGINT'])
    expect(readFileSync(out, 'utf8')).toBe('before')
    expect(readdirSync(folder).filter(name => name.endsWith('.part'))).toEqual([])
  })
})
