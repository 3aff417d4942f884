import type { readCsv, setHouse, Table } from 'dapplo'
import type { readInWorker } from 'dapplo/worker'
import type { Page } from 'playwright-core'
import { afterAll, beforeAll, expect, test } from 'vitest'
import { engine, sampled } from './support/browser.ts'
import { type Gallery, openGallery } from './support/gallery.ts'
import { still } from './support/waiting.ts'

declare global {
  interface Window {
    reading: {
      worker: Worker
      readInWorker: typeof readInWorker
      readCsv: typeof readCsv
      setHouse: typeof setHouse
    }
  }
}

let gallery: Gallery
beforeAll(async () => {
  gallery = await openGallery()
})
afterAll(() => gallery?.close())

const open = async () => {
  const { page, errors } = await gallery.openPlain('large.html')
  await page.waitForFunction(() => window.reading)
  return { page, errors }
}
const file = (text: string, name = 'sailings.csv') => ({
  name,
  mimeType: 'text/csv',
  buffer: Buffer.from(text),
})
const status = (page: Page) => page.locator('#status')

test('a file that a person chooses is read in a worker, and drawn', async () => {
  const { page, errors } = await open()
  const lines = ['id,departed,route,passengers']
  for (let i = 0; i < 20_000; i++)
    lines.push(`${i},2024-${String((i % 12) + 1).padStart(2, '0')}-03,"Gannet ""old"" Bay",${i % 240}`)
  await page.locator('#file').setInputFiles(file(lines.join('\n')))
  await status(page).getByText('20,000 rows read').waitFor()
  await page.waitForFunction(() => window.charts?.[0].scene.batches.some(one => one.kind === 'lines'))
  await still(page)
  expect(await page.evaluate(() => window.charts[0].scene.description)).toContain('passengers')
  expect(errors).toEqual([])
  await page.context().close()
})

test('a table from a worker is the one that the page would have read, with its findings, and reads later rows alike', async () => {
  const { page } = await open()
  const [inWorker, inPage, progress] = await page.evaluate(async () => {
    const { worker, readInWorker, readCsv } = window.reading
    const text = `id,at,pier,cost
1,2024-03-01,Kelp Quay,"1.204,50 €"
2,2024-03,"Mole, old",full
3,,Öre,
`
    const options = {
      name: 'piers',
      rowsAre: 'Piers',
      key: 'id',
      timeZone: 'Europe/Lisbon',
      columns: { cost: { type: 'number' } },
    } as const
    const seen = (table: Table) => {
      table.append([{ id: 4, at: '2024-05', pier: 'Kelp Quay', cost: '2.000,25 €' }])
      return JSON.stringify([table.rows(), table.report, table.names, table.key, table.rowsAre])
    }
    const told: number[] = []
    const own = await readInWorker(worker, new Blob([text]), {
      ...options,
      separator: ',',
      progress: done => told.push(done),
    })
    return [seen(own), seen(readCsv(text, { ...options, separator: ',' })), told]
  })
  expect(inWorker).toBe(inPage)
  expect(inWorker).toContain('1204.5')
  expect(progress.at(-1)).toBe(1)
  await page.context().close()
})

test.skipIf(sampled)(
  'what is said of columns holds, by the page or by the house of all its tables, functions too',
  async () => {
    const { page } = await open()
    const seen = await page.evaluate(async () => {
      const { worker, readInWorker, setHouse } = window.reading
      setHouse({ columns: { at: { timeZone: 'Europe/Lisbon' }, none: { type: 'number' } } })
      const table = await readInWorker(worker, new Blob(['at,code,n\n2024-07-01T10:00,007,3\n']), {
        columns: { code: { type: 'text' }, n: { format: (value: number) => `no. ${value}` } },
      })
      const { format } = table.column('n')!.options
      return [table.rows(), typeof format === 'function' ? format(3) : '', table.column('at')!.zone.name]
    })
    expect(seen).toEqual([
      [{ at: new Date('2024-07-01T09:00Z'), code: '007', n: 3 }],
      'no. 3',
      'Europe/Lisbon',
    ])
    await page.context().close()
  },
)

test('what goes wrong in a worker is told as in the page, and the worker goes on', async () => {
  const { page } = await open()
  await page.locator('#file').setInputFiles(file('a,b\n1\n'))
  await status(page).getByText('Line 2 of sailings.csv has 1 cell').waitFor()
  const told = await page.evaluate(async () => {
    const { worker, readInWorker } = window.reading
    const codeOf = (reading: Promise<unknown>) =>
      reading.then(
        () => 'read',
        (error: { code: string; sentence: string }) => `${error.code}: ${error.sentence}`,
      )
    const stop = new AbortController()
    const many = `n,route\n${'1,Tern Point\n'.repeat(300_000)}`
    const stopped = codeOf(
      readInWorker(worker, new Blob([many]), { signal: stop.signal, progress: () => stop.abort() }),
    )
    const missing = codeOf(readInWorker(worker, 'missing.csv'))
    const lines = readInWorker(worker, new Blob(['{"n":1}\n{"n":2}\n']), { as: 'lines' })
    return [
      await stopped,
      await missing,
      (await lines).length,
      await codeOf(readInWorker(new Worker('none.js', { type: 'module' }), new Blob(['n\n1\n']))),
      await codeOf(readInWorker(worker, new Blob(['n\n1\n']), { signal: AbortSignal.abort() })),
      await codeOf(readInWorker(worker, new Blob(['n\n1\n']), { name: (() => 'n') as never })),
    ]
  })
  expect(told[0]).toMatch(/^aborted: Reading the file was called off/)
  expect(told[1]).toMatch(/^not-fetched: .*missing\.csv answers 404/)
  expect(told[2]).toBe(2)
  expect(told[3]).toMatch(/^no-worker: The worker has failed.*readForPages/)
  expect(told[4]).toMatch(/^aborted/)
  expect(told[5]).toMatch(/^not-sent: This cannot be sent to a worker/)
  await page.context().close()
})

test.skipIf(engine !== 'chromium')('a worker that says nothing is no reason to wait for ever', async () => {
  const { page } = await open()
  await page.clock.install()
  const told = page.evaluate(() => {
    const silent = new Worker(URL.createObjectURL(new Blob([''])))
    return window.reading.readInWorker(silent, new Blob(['n\n1\n'])).catch(error => error.sentence)
  })
  await page.clock.runFor(31_000)
  expect(await told).toMatch(/^The worker has failed: it does not answer/)
  await page.context().close()
})
