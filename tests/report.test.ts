import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { pathToFileURL } from 'node:url'
import type { Browser } from 'playwright-core'
import { afterAll, beforeAll, expect, inject, test } from 'vitest'
import { openBrowser, problemsOn } from './support/browser.ts'
import { buildExample } from './support/examples.ts'

const folder = mkdtempSync(join(tmpdir(), 'dapplo-report-'))
const kept = join(folder, 'kept')
let server: { url: string; close(): Promise<void> }
let browser: Browser
beforeAll(async () => {
  const example = join(inject('examples'), 'report')
  const pages = await buildExample(example)
  const { serveReports } = await import(pathToFileURL(join(example, 'server.mjs')).href)
  server = await serveReports({ folder: kept, pages })
  browser = await openBrowser()
})
afterAll(async () => {
  await browser?.close()
  await server?.close()
  rmSync(folder, { recursive: true })
})

const saved = () => JSON.parse(readFileSync(join(kept, 'monthly.json'), 'utf8'))

test('a report is composed, kept as a file, and read again; of two people the later one is told', async () => {
  const problems: string[] = []
  const [one, other] = await Promise.all([browser.newPage(), browser.newPage()])
  for (const page of [one, other]) {
    problemsOn(page, problems)
    await page.goto(server.url)
  }
  await one.getByRole('button', { name: 'Add a chart' }).click()
  await one.getByRole('button', { name: /^Draw lines of sum of passengers/ }).click()
  await one.getByRole('button', { name: 'lines', exact: true }).click()
  await one.getByRole('option', { name: 'bars', exact: true }).click()
  await one.getByRole('button', { name: 'Done' }).click()
  await one
    .getByText('Draw bars of sum of passengers for each month of departed, one colour per route.')
    .waitFor()
  await one.getByRole('button', { name: 'Save the report' }).click()
  await one.getByText('Saved, one chart.').waitFor()
  expect(saved()).toEqual({
    version: 1,
    charts: [{ draw: 'bar', x: 'month of departed', y: 'sum of passengers', color: 'route' }],
  })

  // The other one has begun before, and knows nothing of it.
  await other.getByRole('button', { name: 'Add a chart' }).click()
  await other.getByRole('button', { name: /^Draw points/ }).click()
  await other.getByRole('button', { name: 'Save the report' }).click()
  await other.getByText('Somebody else has saved this report meanwhile.').waitFor()
  expect(saved().version).toBe(1)
  await other.getByRole('button', { name: 'Show theirs' }).click()
  await other.getByText('Draw bars of sum of passengers').waitFor()

  // What is kept is there after a reload, and can be changed.
  await one.reload()
  await one.getByRole('button', { name: 'Change' }).click()
  await one.getByRole('button', { name: 'and …' }).click()
  await one.getByRole('option', { name: 'stacked', exact: true }).click()
  await one.getByRole('button', { name: 'Done' }).click()
  await one.getByRole('button', { name: 'Save the report' }).click()
  await one.getByText('Saved, one chart.').waitFor()
  expect(saved()).toMatchObject({ version: 2, charts: [{ arrange: 'stack' }] })
  // The file was wanted, and there was none at first.
  expect(problems.filter(problem => !problem.includes('409'))).toEqual([])
})

test('the server keeps nothing that is no report, and gives out nothing but its pages', async () => {
  const put = (path: string, body: string) =>
    fetch(`${server.url}/${path}`, { method: 'PUT', headers: { 'if-match': '0' }, body })
  writeFileSync(join(folder, 'secret.json'), '{}')
  expect((await put('reports/x', 'no JSON')).status).toBe(400)
  expect((await put('reports/x', '{"charts":3}')).status).toBe(400)
  expect((await put('reports/x', `{"charts":["${'x'.repeat(2_000_000)}"]}`)).status).toBe(413)
  expect((await put('reports/..%2Fsecret', '{"charts":[]}')).status).toBe(404)
  expect((await fetch(`${server.url}/..%2fsecret.json`)).status).toBe(404)
  expect(await (await fetch(`${server.url}/reports/other`)).json()).toEqual({ version: 0, charts: [] })
})
