import { chart, mount, selectedRows } from 'dapplo'
import { farTable, remoteEngine } from 'dapplo/far'

const asked = new URLSearchParams(location.search)
const name = asked.get('engine') ?? 'duckdb'
/** With `?still`, charts change without gliding. */
const still = asked.has('still') ? { motion: false } : {}
for (const link of document.querySelectorAll('nav a'))
  if (link.search === `?engine=${name}`) link.setAttribute('aria-current', 'page')

/** Says what went wrong, for as long as it does. */
function problem(words) {
  const place = document.querySelector('#problem')
  place.hidden = words === undefined
  place.textContent = words ?? ''
}

try {
  const sailings = await farTable(remoteEngine(`far/${name}`), 'sailings', {
    key: 'id',
    rowsAre: 'Sailings',
    columns: {
      delay_minutes: { label: 'Delay', unit: 'min' },
      wind_knots: { label: 'Wind', unit: 'kn' },
    },
  })
  document.querySelector('#what').textContent =
    `${sailings.length.toLocaleString('en')} sailings stay in their database; draw a box or click in a chart, and the others follow.`
  const charts = {
    '#years': {
      title: 'Mean delay',
      draw: 'line',
      x: 'month of departed',
      y: 'mean of delay_minutes',
      select: 'box',
    },
    '#routes': {
      title: '{sum of passengers} passengers',
      draw: 'bar',
      x: 'sum of passengers',
      y: 'route',
      order: 'ranked',
      label: true,
      select: 'click',
    },
    '#hours': {
      title: 'When it is late',
      draw: 'heatmap',
      x: 'month of year of departed',
      y: 'hour of day of departed',
      color: 'mean of delay_minutes',
      select: 'click',
    },
    '#wind': {
      title: 'Wind and delay of {count} sailings',
      draw: ['scatter', { as: 'trend' }],
      x: 'wind_knots',
      y: 'delay_minutes',
      zoom: 'xy',
      select: 'box',
    },
  }
  const theme = matchMedia('(prefers-color-scheme: dark)').matches ? 'night' : 'day'
  window.charts = Object.entries(charts).map(([place, description]) =>
    mount(chart(sailings, { ...description, ...still }), place, {
      theme,
      onFindings: findings => problem(findings.find(({ code }) => code === 'no-answer')?.message),
    }),
  )
  window.sailings = sailings
  document.querySelector('#rows').onclick = async () => {
    const rows = await selectedRows(sailings)
    const table = document.createElement('table')
    const line = cells => {
      const row = table.insertRow()
      for (const cell of cells) row.insertCell().textContent = cell
    }
    line(['Departed', 'Route', 'Vessel', 'Delay'])
    for (const { departed, route, vessel, delay_minutes: delay } of rows.slice(0, 12))
      line([departed.toISOString().slice(0, 16).replace('T', ' '), route, vessel, delay ?? ''])
    const list = document.querySelector('#list')
    list.replaceChildren(
      rows.length === 0 ? 'Nothing is selected.' : `The first of ${rows.length.toLocaleString('en')}:`,
      table,
    )
  }
} catch (error) {
  problem(error.sentence ?? String(error))
}
