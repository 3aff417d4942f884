import { join } from 'node:path'
import { chart, table } from '@dapplo/core'
import { DapploChart } from '@dapplo/react'
import { createElement } from 'react'
import { renderToString } from 'react-dom/server'
import { expect, test } from 'vitest'
import { sampled } from './support/browser.ts'
import { openReactApp } from './support/react-app.ts'

const root = join(import.meta.dirname, '..')
const rows = [
  { pier: 'Old Mole', n: 3 },
  { pier: 'Kelp Quay', n: 5 },
]

test('a server draws the picture; the page brings it to life, glides on new props, tells of state, and cleans up', async () => {
  const picture = renderToString(
    createElement(DapploChart, {
      chart: chart(table(rows), { draw: 'bar', x: 'pier', y: 'n', title: 'Piers' }),
      width: 500,
      height: 300,
    }),
  )
  expect(picture).toContain('<svg ')
  expect(picture).toContain('>Kelp Quay</text>')

  const { page, errors, close } = await openReactApp(
    `import { chart, table } from ${JSON.stringify(join(root, 'packages/browser/dist/index.js'))}
import { DapploChart } from ${JSON.stringify(join(root, 'packages/react/dist/index.js'))}
import { createElement, lazy, StrictMode, Suspense, useState } from 'react'
import { hydrateRoot } from 'react-dom/client'
const piers = table(${JSON.stringify(rows)})
const bars = chart(piers, { draw: 'bar', x: 'pier', y: 'n', color: 'pier', title: 'Piers', legend: 'top', select: 'click' })
const charts = [bars, bars.with({ draw: 'scatter', title: 'Points', style: { gap: 0.5 } })]
window.found = []
window.clicked = []
window.states = []
window.lives = []
function App() {
  const [turn, setTurn] = useState(0)
  const [theme, setTheme] = useState('day')
  const [shown, setShown] = useState(true)
  Object.assign(window, { setTurn, setTheme, setShown })
  return shown && createElement(DapploChart, { chart: charts[turn], theme, height: 300, onState: state => window.states.push(state), onLive: live => window.lives.push(live), onFindings: list => window.found.push(list.map(({ path }) => path)), onClicked: deed => { deed.prevent(); deed.rows().then(rows => window.clicked.push([deed.key, rows])) } })
}
// Comes when its data have come.
const Late = lazy(() => new Promise(done => { window.arrive = () => done({ default: () => createElement(DapploChart, { chart: bars.with({ title: 'Late' }), height: 200, tooltip: rows => createElement('b', null, rows.length + ' told') }) }) }))
window.showLate = () => import('react-dom/client').then(({ createRoot }) => createRoot(document.getElementById('late')).render(createElement(StrictMode, null, createElement(Suspense, { fallback: 'Coming' }, createElement(Late)))))
window.app = hydrateRoot(document.getElementById('root'), createElement(StrictMode, null, createElement(App)))
`,
    `<div id="root">${picture}</div><div id="late"></div>`,
  )
  await page.waitForSelector('.dapplo canvas', { state: 'attached' })
  const name = () => page.locator('.dapplo').getAttribute('aria-label')
  expect(await name()).toBe('Piers')
  const bar = await page.evaluate(() => {
    const live = (window as any).lives.at(-1)
    const { left, top } = live.element.getBoundingClientRect()
    const bars = live.scene.batches.find((batch: any) => batch.kind === 'rects' && batch.part === 'data')
    return { x: left + bars.x[1] + 4, y: top + bars.y[1] + bars.height[1] / 2 }
  })
  await page.mouse.click(bar.x, bar.y)
  await page.waitForFunction(() => (window as any).clicked.length > 0)
  const [[, clicked]] = await page.evaluate(() => (window as any).clicked)
  expect(clicked).toEqual([{ pier: 'Kelp Quay', n: 5 }])
  // It was prevented: nothing is selected.
  expect(await page.evaluate(() => (window as any).states)).toEqual([])
  await page.evaluate(() => (window as any).setTurn(1))
  await page.waitForFunction(() => document.querySelector('.dapplo')?.getAttribute('aria-label') === 'Points')
  await page.waitForFunction(() => (window as any).found.length > 0)
  expect(await page.evaluate(() => (window as any).found)).toEqual([['style.gap']])
  await page.evaluate(() => (window as any).setTheme('night'))
  await page.waitForFunction(() => (window as any).lives.at(-1).scene.background === '#15191c')
  await page.evaluate(() => {
    ;(window as any).lives.at(-1).state = { zoom: { y: [0, 3] } }
  })
  expect(await page.evaluate(() => (window as any).states.at(-1))).toEqual({ zoom: { y: [0, 3] } })
  await page.evaluate(() => (window as any).setShown(false))
  await page.waitForSelector('.dapplo', { state: 'detached' })
  expect(await page.evaluate(() => (window as any).lives.at(-1))).toBeUndefined()
  // In suspense it waits, and is drawn once.
  await page.evaluate(() => (window as any).showLate())
  await page.getByText('Coming').waitFor()
  await page.evaluate(() => (window as any).arrive())
  await page.locator('#late .dapplo canvas').first().waitFor({ state: 'attached' })
  expect(await page.locator('#late .dapplo').count()).toBe(1)
  expect(errors).toEqual([])
  await close()
})

test.skipIf(sampled)(
  'the composer is a component: it tells of steps, begins anew in another theme with what is drawn, and cleans up',
  async () => {
    const { page, errors, close } =
      await openReactApp(`import { table } from ${JSON.stringify(join(root, 'packages/browser/dist/index.js'))}
import { DapploComposer } from ${JSON.stringify(join(root, 'packages/compose/dist/react.js'))}
import { createElement, StrictMode, useState } from 'react'
import { createRoot } from 'react-dom/client'
const piers = table(${JSON.stringify(rows)})
window.steps = []
function App() {
  const [theme, setTheme] = useState('day')
  const [shown, setShown] = useState(true)
  Object.assign(window, { setTheme, setShown })
  return shown && createElement(DapploComposer, { tables: piers, chart: { draw: 'bar', x: 'pier', y: 'n' }, theme, onChange: description => window.steps.push(description) })
}
createRoot(document.getElementById('root')).render(createElement(StrictMode, null, createElement(App)))
`)
    await page.getByRole('button', { name: 'bars' }).click()
    await page.getByRole('option', { name: 'points', exact: true }).click()
    expect(await page.evaluate(() => (window as any).steps.at(-1).draw)).toBe('scatter')
    await page.evaluate(() => (window as any).setTheme('night'))
    const ground = () =>
      page.locator('.dapplo-composer').evaluate(host => host.style.getPropertyValue('--background'))
    await expect.poll(ground).toBe('#15191c')
    expect(await page.getByRole('button', { name: 'points' }).count()).toBe(1)
    await page.evaluate(() => (window as any).setShown(false))
    await page.waitForSelector('.dapplo-composer', { state: 'detached' })
    expect(errors).toEqual([])
    await close()
  },
)
