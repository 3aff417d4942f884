import { spawnSync } from 'node:child_process'
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { loadImage } from '@napi-rs/canvas'
import PostalMime from 'postal-mime'
import { afterAll, describe, expect, test } from 'vitest'
import { chart, mailParts, table, toMail } from '../packages/node/dist/index.js'

const root = join(import.meta.dirname, '..')
const folder = mkdtempSync(join(tmpdir(), 'dapplo-mail-'))
afterAll(() => rmSync(folder, { recursive: true }))

const piers = table(
  [
    { pier: 'The harbour office & the long northern quay', cost: 1200 },
    { pier: 'Old <Mole>', cost: -40 },
    { pier: '東の桟橋', cost: undefined },
    { pier: 'Kelp\nQuay', cost: 980000 },
  ],
  { key: 'pier' },
)
const costs = chart(piers, {
  draw: 'bar',
  y: 'pier',
  x: 'cost',
  title: 'Costs & piers',
  source: 'The harbour',
})

/** The cells of the first table in HTML, with how they stand. */
const cellsOf = (html: string) =>
  [...html.matchAll(/<t[hd]([^>]*)>([^<]*)<\/t[hd]>/g)].map(([, looks, text]) => [
    text,
    /align="(\w+)"/.exec(looks)?.[1],
  ])

describe('a mail', () => {
  test('has the picture within it, its values as a table, and the same in plain text', async () => {
    const mail = await PostalMime.parse(await toMail(costs, { to: 'Office <office@ferry.example>' }))
    expect(mail.subject).toBe('Costs & piers')
    expect(mail.to?.[0].address).toBe('office@ferry.example')
    // Without a sender it is a draft.
    expect(mail.headers.find(({ key }) => key === 'x-unsent')?.value).toBe('1')
    const [picture] = mail.attachments
    expect(mail.attachments).toHaveLength(1)
    expect(picture).toMatchObject({ mimeType: 'image/png', disposition: 'inline' })
    expect(mail.html).toContain(`src="cid:${picture.contentId?.slice(1, -1)}"`)
    const { width, height } = await loadImage(Buffer.from(picture.content as ArrayBuffer))
    expect([width, height]).toEqual([1280, 800])
    expect(mail.html).toMatch(/<img [^>]*width="640" height="400" alt="Costs &#38; piers\. Bar chart of cost/)
    expect(cellsOf(mail.html!)).toEqual([
      ['Pier', 'left'],
      ['Cost', 'right'],
      ['The harbour office &#38; the long northern quay', 'left'],
      ['1,200', 'right'],
      ['Old &#60;Mole&#62;', 'left'],
      ['-40', 'right'],
      ['東の桟橋', 'left'],
      ['', 'right'],
      ['Kelp\nQuay', 'left'],
      ['980,000', 'right'],
    ])
    const lines = mail.text!.split('\n')
    expect(lines).toContain('The harbour office & the long northern quay    1,200')
    expect(lines).toContain('Kelp Quay                                    980,000')
    expect(lines).toContain('The harbour')
  })

  test('lists as many rows as are wished for, of what its picture shows, from right to left where people read so', async () => {
    const two = await mailParts(costs, { rows: 2, locale: 'ar' })
    expect(cellsOf(two.html)).toHaveLength(6)
    expect(cellsOf(two.html)[2][1]).toBe('right')
    expect(two.html).toContain('dir="rtl"')
    const german = await mailParts(costs, { rows: 2, locale: 'de' })
    expect(german.text).toContain('1.200')
    expect(german.html).toMatch(/and 2 more rows/)
    expect((await mailParts(costs, { rows: 0 })).html).not.toContain('<table')
    const played = chart(
      table([
        { year: 2001, pier: 'Old Mole', boats: 3 },
        { year: 2002, pier: 'Old Mole', boats: 7 },
      ]),
      { draw: 'bar', y: 'pier', x: 'boats', through: 'year' },
    )
    expect(cellsOf((await mailParts(played)).html).at(-1)?.[0]).toBe('7')
    expect(cellsOf((await mailParts(played, {}, { at: 0 })).html).at(-1)?.[0]).toBe('3')
  })

  test('is written by the command, and no line of its heads comes from elsewhere', async () => {
    const file = (name: string) => join(folder, name)
    writeFileSync(file('costs.csv'), 'pier,cost\nOld Mole,3\nKelp Quay,4\n')
    const draw = (...flags: string[]) =>
      spawnSync(
        process.execPath,
        [join(root, 'packages/cli/dist/dapplo.js'), 'draw', file('costs.csv'), ...flags],
        {
          encoding: 'utf8',
        },
      )
    const flags = ['--draw', 'bar', '--y', 'pier', '--x', 'cost', '--out', file('costs.eml')]
    const title = 'Costs\r\nBcc: spy@ferry.example'
    const done = draw(...flags, '--title', title, '--from', 'pier@ferry.example', '--to', 'a@ferry.example')
    expect([done.status, done.stderr]).toEqual([0, ''])
    const mail = await PostalMime.parse(readFileSync(file('costs.eml')))
    expect(mail.from?.address).toBe('pier@ferry.example')
    expect(mail.bcc ?? []).toEqual([])
    expect(mail.headers.some(({ key }) => key === 'x-unsent')).toBe(false)
    expect(cellsOf(mail.html!).at(-1)).toEqual(['4', 'right'])
    expect(draw(...flags, '--rows', 'all').stderr).toMatch(/"all" is no number of rows.*Write a whole number/)
  })
})
