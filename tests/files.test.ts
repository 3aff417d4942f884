import { spawn, spawnSync } from 'node:child_process'
import { chmodSync, existsSync, mkdirSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import {
  addFont,
  chart,
  DapploError,
  findingsOf,
  type House,
  openTable,
  reshape,
  sceneOf,
  table,
  toCsv,
  toFilm,
  toJson,
  toOutlinedSvg,
  toPdf,
  toPng,
  toSvg,
  toText,
  writeFilm,
} from '@dapplo/node'
import type { Browser } from 'playwright-core'
import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import { picturesIn } from './support/apng.ts'
import { openBrowser } from './support/browser.ts'
import { main, root, workplace } from './support/command.ts'
import { PATIENCE } from './support/waiting.ts'

const { folder, dapplo } = workplace()
let browser: Browser
beforeAll(async () => {
  browser = await openBrowser()
})
afterAll(async () => {
  await browser?.close()
  rmSync(folder, { recursive: true })
})
const piers = reshape(openTable(join(root, 'demo-data/piers.csv')), [
  { long: { keep: ['pier'], name: 'year', value: 'passengers' } },
  { where: { year: ['2001', '2002', '2003'] } },
])
const race = chart(piers, {
  title: 'The race',
  draw: 'bar',
  y: 'pier',
  x: 'sum of passengers',
  order: 'ranked',
  top: 5,
  through: 'year',
  scales: { through: { each: 300 } },
})
const small = { frame: { width: 240, height: 160 }, rate: 10, rest: 200 }

describe('files', () => {
  test('a PDF holds letters, lines and the fonts, not a picture', async () => {
    const pdf = Buffer.from(await toPdf(race, { width: 600, height: 400 })).toString('latin1')
    expect(pdf.startsWith('%PDF-')).toBe(true)
    expect(pdf).toContain('/MediaBox [0 0 450 300]')
    expect(pdf).toContain('/FontFile')
    expect(pdf).not.toContain('/Subtype /Image')
  })

  test.each(['scatter', 'line'] as const)(
    'a %s of thousands stays shapes where a file can be enlarged',
    async draw => {
      const many = table(Array.from({ length: 3000 }, (_, at) => ({ at, wind: (at * 37) % 101 })))
      const described = chart(many, { draw, x: 'at', y: 'wind' })
      const pdf = Buffer.from(await toPdf(described, { width: 600, height: 400 })).toString('latin1')
      expect(pdf.startsWith('%PDF-')).toBe(true)
      expect(pdf).not.toContain('/Subtype /Image')
      const outlined = await toOutlinedSvg(described, { width: 600, height: 400 })
      expect(outlined).not.toContain('<image')
      expect(outlined.length).toBeGreaterThan(40_000)
    },
  )

  test('letters that no font here has are told of, where a picture would show boxes', () => {
    // No font has this one: it is for private use.
    const boats = table([{ pier: 'Old Mole \u{10fffc}', boats: 3 }])
    const bars = chart(boats, { draw: 'bar', x: 'pier', y: 'boats' })
    expect(findingsOf(bars).map(({ code }) => code)).toEqual(['no-letters'])
    expect(findingsOf(bars.with({ where: { pier: 'none' } })).map(({ code }) => code)).toEqual(['no-rows'])
    writeFileSync(join(folder, 'letters.csv'), 'pier,boats\nOld Mole \u{10fffc},3\n')
    const said = (out: string) =>
      dapplo(['draw', 'letters.csv', '--draw', 'bar', '--x', 'pier', '--y', 'boats', '--out', out]).stderr
    expect(said('letters.png')).toContain('[no-letters]')
    expect(said('letters.svg')).toBe('')
  })

  test('a font from a file is measured, drawn and written into PDF and SVG; one that is not there is told', async () => {
    const file = join(root, 'node_modules/@expo-google-fonts/inter/900Black/Inter_900Black.ttf')
    const frame = { width: 400, height: 300, house: { font: 'Harbour Black' } }
    const found = () => findingsOf(race, frame).map(({ code, path }) => [code, path])
    expect(found()).toEqual([['missing-font', 'house.font']])
    expect(addFont(file, 'Harbour Black')).toBe('Harbour Black')
    expect(found()).toEqual([])
    const pdf = Buffer.from(await toPdf(race, frame)).toString('latin1')
    expect(pdf).toMatch(/\/FontName \/[A-Z]+\+Inter-Black/)
    expect(toSvg(race, { ...frame, fonts: 'embedded' })).toContain(
      '@font-face{font-family:"Harbour Black";src:url(',
    )
    // Wider letters leave less room to the plot.
    const left = (house: House) => sceneOf(race, { ...frame, house }).plots[0].x
    expect(left(frame.house)).toBeGreaterThan(left({}))
    expect(() => addFont(join(root, 'README.md'))).toThrow('is no font')
    expect(() => addFont('nowhere.ttf')).toThrow('There is no file nowhere.ttf')
    writeFileSync(join(folder, 'two.csv'), 'pier,n\nOld Mole,3\nKelp Quay,5\n')
    const told = ['draw', join(folder, 'two.csv'), '--draw', 'bar', '--x', 'pier', '--y', 'n', '--font', file]
    const drawn = dapplo(told)
    expect([drawn.status, drawn.stderr]).toEqual([0, ''])
    expect(drawn.stdout).toContain('font-family="Inter_900Black, Inter,')
  })

  test('moving pictures have a picture for each moment', async () => {
    let told: [number, number] = [0, 0]
    const options = { ...small, progress: (done: number, all: number) => (told = [done, all]) }
    const gif = Buffer.from(await toFilm(race, 'gif', options))
    expect(gif.subarray(0, 6).toString()).toBe('GIF89a')
    // Two glides of 300 ms and a rest of 200 ms, ten pictures a second, and the first one.
    expect(told).toEqual([9, 9])
    expect(gif.toString('latin1').split('\u0021\u00f9\u0004').length - 1).toBe(9)
    const apng = Buffer.from(await toFilm(race, 'apng', small))
    expect(apng.subarray(1, 4).toString()).toBe('PNG')
    expect(apng.toString('latin1')).toContain('acTL')
    const still = await toFilm(race.with({ through: null }), 'gif', small)
    expect(still.length).toBeGreaterThan(500)
  })

  test('updates are filmed: charts turn into each other, and rows come', async () => {
    const fares = () =>
      table(
        [
          { pier: 'Old Mole', fare: 4 },
          { pier: 'Kelp Quay', fare: 9 },
        ],
        { key: 'pier' },
      )
    const live = fares()
    const bars = chart(live, { draw: 'bar', x: 'pier', y: 'fare', motion: { duration: 400 } })
    const append = () => live.put([{ pier: 'Tern Steps', fare: 6 }])
    const lines = bars.with({ draw: 'line' })
    const film = await toFilm([bars, append, lines], 'apng', { ...small, hold: 200 })
    const pictures = picturesIn(film)
    // Three stays of 200 ms, and two glides of 400 ms between them, ten pictures a second.
    expect(pictures).toHaveLength(14)
    const still = async (one: typeof bars) => {
      return picturesIn(await toPng(one, { ...small.frame, density: 1 }))[0]
    }
    const before = await still(chart(fares(), bars.description))
    expect(pictures[0].equals(before)).toBe(true)
    expect(pictures.at(-1)!.equals(await still(lines))).toBe(true)
    expect(pictures[7].equals(await still(bars))).toBe(true)
    expect(new Set(pictures.map(picture => picture.toString('base64'))).size).toBeGreaterThanOrEqual(10)
    await expect(toFilm([append] as never, 'gif', small)).rejects.toThrow('no chart to begin with')
  })

  test('the command turns one description into the next', () => {
    const place = join(folder, 'turning')
    mkdirSync(place)
    writeFileSync(join(place, 'fares.csv'), 'pier,fare\nOld Mole,4\nKelp Quay,9\n')
    for (const draw of ['bar', 'line'])
      writeFileSync(
        join(place, `${draw}.chart.json`),
        JSON.stringify({ tables: { fares: { url: 'fares.csv' } }, draw, x: 'pier', y: 'fare' }),
      )
    const both = ['draw', join(place, 'bar.chart.json'), join(place, 'line.chart.json'), '--frame', '240x160']
    const gif = join(place, 'change.gif')
    expect(dapplo([...both, '--out', gif, '--rate', '10', '--hold', '300']).status).toBe(0)
    // A stay of 300 ms, a glide of 400 and a rest of 1500.
    expect(readFileSync(gif).toString('latin1').split('\u0021\u00f9\u0004').length - 1).toBe(3 + 4 + 15)
    const one = dapplo([...both, '--out', join(place, 'both.svg')])
    expect(one.status).toBe(2)
    expect(one.stderr).toContain('only turn into each other in a moving picture')
  })

  test('a film that is stopped, or has no ffmpeg, leaves nothing behind', async () => {
    const stop = new AbortController()
    const path = join(folder, 'stopped.gif')
    await expect(
      writeFilm(race, path, 'gif', {
        ...small,
        signal: stop.signal,
        progress: done => done === 3 && stop.abort(),
      }),
    ).rejects.toThrow('The film was stopped before its end')
    const none = dapplo(['draw', join(root, 'demo-data/passengers.chart.json'), '--out', 'film.webm'], {
      PATH: folder,
    })
    expect(none.status).toBe(2)
    expect(none.stderr).toContain('needs the program ffmpeg')
    expect(readdirSync(folder).filter(name => /stopped|film/.test(name))).toEqual([])
  })

  test('ffmpeg is given every picture, and its file takes its place when it is whole', async () => {
    const tools = join(folder, 'tools')
    mkdirSync(tools)
    // A stand-in that counts what it is given and writes the count where the film belongs.
    writeFileSync(
      join(tools, 'ffmpeg'),
      `#!${process.execPath}\nlet n=0;process.stdin.on('data',d=>{n+=d.length}).on('end',()=>require('fs').writeFileSync(process.argv.at(-1),String(n)))\n`,
    )
    chmodSync(join(tools, 'ffmpeg'), 0o755)
    const before = process.env.PATH
    process.env.PATH = tools
    const path = join(folder, 'race.mp4')
    await writeFilm(race, path, 'mp4', small).finally(() => {
      process.env.PATH = before
    })
    expect(Number(readFileSync(path, 'utf8'))).toBe(9 * 240 * 160 * 4)
  })

  const hasFfmpeg = spawnSync('ffmpeg', ['-version']).status === 0
  test.skipIf(!hasFfmpeg)('ffmpeg, where it is, makes films of the right size and length', async () => {
    for (const format of ['webm', 'mp4'] as const) {
      const path = join(folder, `real.${format}`)
      await writeFilm([race, race.with({ draw: 'line' })], path, format, small)
      const { stderr } = spawnSync('ffmpeg', ['-i', path, '-f', 'null', '-'], { encoding: 'utf8' })
      expect(stderr).toMatch(format === 'webm' ? /Video: vp9.*240x160/ : /Video: h264.*240x160/)
      // A stay of 600 ms, a glide of 400 and a rest of 200, ten pictures a second.
      expect(stderr).toMatch(/frame=\s*12/)
    }
  })

  test('data come out as plain numbers and ISO times', () => {
    const table = openTable(join(root, 'demo-data/sailings.csv'))
    const monthly = chart(table, {
      draw: 'line',
      x: 'month of departed',
      y: 'sum of passengers',
      color: 'route',
    })
    const [head, first] = toCsv(monthly).split('\r\n')
    expect(head).toBe('Departed,North Sound,Gannet Bay,Tern Point,Outer Skerries,Kelp Narrows')
    expect(first).toMatch(/^2023-01-01,\d+,\d+,\d+,\d+,$/)
    const [record] = JSON.parse(toJson(monthly))
    expect(record).toMatchObject({ Departed: '2023-01-01', 'Kelp Narrows': null })
    expect(record['North Sound']).toBe(Number(first.split(',')[1]))
  })

  test('a terminal gets a chart of characters in eighty columns', () => {
    const text = toText(race, { rows: 12 })
    expect(text.split('\n').every(line => [...line].length <= 80)).toBe(true)
    expect(text).toContain('Harbour Steps')
    expect(text).toMatch(/█{20}/)
    const drawn = dapplo(['draw', join(root, 'demo-data/passengers.chart.json'), '--as-text'])
    expect(drawn.stdout).toMatch(/[\u2801-\u28ff]{3}/)
  })

  test('check says what there is and what is to mend', () => {
    const checked = dapplo(['check', join(root, 'demo-data/passengers.chart.json')])
    expect(checked.stdout).toBe('One chart over 19,197 rows: one finding.\n')
    expect(checked.status).toBe(0)
    expect(dapplo(['check', join(root, 'demo-data/passengers.chart.json'), '--strict']).status).toBe(1)
  })
})

test('a house style beside the description counts for colours, fonts, formats and language', () => {
  const place = join(folder, 'house')
  mkdirSync(place)
  writeFileSync(
    join(place, 'dapplo.house.json'),
    JSON.stringify({
      font: 'Charter, serif',
      palette: ['#7a1f5c'],
      locale: 'de',
      day: { background: '#fffaf0', sizes: { title: 22 } },
      words: {
        'Mean {what}': 'Mittel: {what}',
        bar: 'Balken',
        '{kind} chart of {what} by {group}.': '{kind}diagramm: {what} je {group}.',
      },
      columns: { fare: { label: 'Fahrpreis', format: { style: 'currency', currency: 'EUR' } } },
    }),
  )
  writeFileSync(join(place, 'fares.csv'), 'pier,fare\nOld Mole,1200.5\nKelp Quay,900\n')
  writeFileSync(
    join(place, 'fares.chart.json'),
    JSON.stringify({
      tables: { fares: { url: 'fares.csv' } },
      draw: 'bar',
      x: 'pier',
      y: 'fare',
      title: 'Fares',
    }),
  )
  const { stdout } = dapplo(['draw', join(place, 'fares.chart.json'), '--out', '-'])
  for (const part of [
    'Charter, serif',
    '#7a1f5c',
    '#fffaf0',
    'font-size="22"',
    '>Fahrpreis</text>',
    '1.000\u00a0€',
  ])
    expect(stdout).toContain(part)
  // The same for a table without a description, in the words of the house.
  const plain = ['draw', join(place, 'fares.csv'), '--draw', 'bar', '--x', 'pier', '--y', 'mean of fare']
  const { stdout: mean } = dapplo(plain)
  expect(mean).toContain('>Mittel: Fahrpreis</text>')
  expect(mean).toContain('<desc>Balkendiagramm: Mittel: Fahrpreis je Pier. ')
  writeFileSync(join(place, 'dapplo.house.json'), '{"pallete": []}')
  const bad = dapplo(['draw', join(place, 'fares.chart.json')])
  expect(bad.status).toBe(2)
  expect(bad.stderr).toContain('There is no option "pallete"')
  writeFileSync(join(place, 'dapplo.house.json'), '{"words": {"Mean of {what}": "Mittel"}}')
  expect(dapplo(plain).stderr).toMatch(/no option "Mean of \{what\}" .*Did you mean "Mean \{what\}"/)
})

test('SVG holds its font, or outlines, or links, as asked for', async () => {
  const linked = chart(openTable(join(root, 'demo-data/vessels.csv')), {
    draw: 'bar',
    x: 'vessel',
    y: 'capacity',
    title: 'Vessels',
    link: { value: 'https://ferry.example/fleet?a=1&b=2' },
  } as never)
  const svg = toSvg(linked, { fonts: 'embedded' })
  expect(svg).toContain('@font-face{font-family:Inter')
  const outlines = await toOutlinedSvg(linked)
  expect(outlines).not.toContain('<text')
  expect(outlines).toContain('<title>Vessels</title>')
})

test('demo writes something to begin from, and shells complete what there is', () => {
  const made = dapplo(['demo', 'begin'])
  expect(made.status).toBe(0)
  expect(readdirSync(join(folder, 'begin')).sort()).toEqual([
    'passengers.chart.json',
    'passengers.html',
    'passengers.png',
    'passengers.svg',
    'sailings.csv',
  ])
  expect(dapplo(['check', join(folder, 'begin/passengers.chart.json'), '--strict']).status).toBe(0)
  const script = dapplo(['completion', 'bash']).stdout
  const complete = (words: string) =>
    spawnSync(
      'bash',
      [
        '-c',
        `${script}\nCOMP_WORDS=(${words}); COMP_CWORD=$((\${#COMP_WORDS[@]}-1)); _dapplo; echo "\${COMPREPLY[@]}"`,
      ],
      {
        encoding: 'utf8',
      },
    ).stdout.trim()
  expect(complete('dapplo emb')).toBe('embed')
  expect(complete('dapplo draw --theme ni')).toBe('night')
  expect(complete('dapplo draw --asp')).toBe('')
  expect(complete('dapplo draw --as-')).toBe('--as-text')
  expect(dapplo(['completion', 'fish']).stdout).toContain('complete -c dapplo')
  expect(dapplo(['completion', 'tcl']).status).toBe(2)
})

test('the published JSON Schema is the one that is checked by', () => {
  const { status, stderr } = spawnSync(process.execPath, [join(root, 'scripts/schema.mjs'), '--check'], {
    encoding: 'utf8',
  })
  expect(stderr).toBe('')
  expect(status).toBe(0)
})

test('a watched chart is drawn again when its data change', async () => {
  const place = join(folder, 'watched')
  mkdirSync(place)
  const data = join(place, 'piers.csv')
  const out = join(place, 'out.svg')
  writeFileSync(data, 'pier,n\nOld Mole,3\n')
  const watching = spawn(process.execPath, [
    main,
    'draw',
    data,
    '--draw',
    'bar',
    '--x',
    'pier',
    '--y',
    'n',
    '--out',
    out,
    '--watch',
  ])
  const until = async (test: () => boolean) => {
    await expect.poll(test, { timeout: PATIENCE }).toBe(true)
  }
  let said = ''
  watching.stderr.on('data', text => {
    said += text
  })
  await until(() => said.includes('watching'))
  writeFileSync(data, 'pier,n\nKelp Quay,4\n')
  await until(() => readFileSync(out, 'utf8').includes('Kelp Quay'))
  watching.kill('SIGINT')
  expect(await new Promise(resolve => watching.on('close', resolve))).toBe(0)
})

test('errors of files are plain', () => {
  expect(existsSync(join(folder, 'none.pdf'))).toBe(false)
  const bad = dapplo(['draw', join(root, 'demo-data/passengers.chart.json'), '--out', 'none.docx'])
  expect(bad.status).toBe(2)
  expect(bad.stderr).toContain('There is no format "docx"')
  expect(DapploError).toBeDefined()
})
