import { chart, feed, mount, table } from 'dapplo'
import { panel, theme } from './theme.ts'

interface Boarding {
  id: number
  at: string
  pier: string
  boarded: number
}

// The demo command serves the feed beside the gallery; the address can name another.
const address = new URLSearchParams(location.search).get('feed') ?? new URL('/feed', location.href).href
const as = new URLSearchParams(location.search).get('as') === 'socket' ? 'socket' : 'events'
const boardings = table<Boarding>([], {
  name: 'boardings',
  key: 'id',
  columns: {
    id: { type: 'number' },
    at: { type: 'time' },
    pier: { type: 'text' },
    boarded: { type: 'number' },
  },
})
const live = feed(boardings, {
  url: `${address}/${as}`,
  as,
  keep: { minutes: 15 },
  at: 'at',
  stale: { seconds: 3 },
})

const motion = { duration: 300 } as const
const charts = [
  mount(
    chart(boardings, {
      title: 'Boarded in the last fifteen minutes',
      draw: 'bar',
      y: 'pier',
      x: 'sum of boarded',
      color: 'pier',
      order: 'ranked',
      label: true,
      motion,
    }),
    panel('wide'),
    { theme },
  ),
  mount(
    chart(boardings, {
      title: 'All piers, minute by minute',
      draw: 'line',
      x: 'minute of at',
      y: 'sum of boarded',
      points: true,
      motion,
    }),
    panel('wide'),
    { theme },
  ),
]
const status = document.createElement('p')
status.id = 'status'
status.setAttribute('role', 'status')
document.querySelector('header')!.append(status)
live.watch(({ connection, received, problem }) => {
  status.textContent = `Connection: ${connection}. ${received} rows received. ${problem ?? ''}`
})
// For a look from the console.
Object.assign(window, { charts, boardings, feed: live })
