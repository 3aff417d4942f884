import { chart } from 'dapplo'
import { in2024, sailings } from '../tables.ts'

/** A picture as data: two headlands and the sea. */
const sea = `data:image/svg+xml,${encodeURIComponent('<svg xmlns="http://www.w3.org/2000/svg" width="800" height="500"><rect width="800" height="500" fill="#7fb2d9"/><path d="M0 300q120-160 300-40t260 10 240-90v320H0z" fill="#2d5d4c"/><rect y="390" width="800" height="110" fill="#1d4e79"/></svg>')}`
const monthly = {
  draw: 'line',
  x: 'month of departed',
  y: 'sum of passengers',
  color: 'route',
  where: in2024,
} as const

export const looks = [
  chart(sailings, { ...monthly, title: 'On a ground of its own', background: '#0b2545' }),
  chart(sailings, {
    ...monthly,
    title: 'On a light one',
    background: '#fff3d6',
    draw: 'bar',
    arrange: 'stack',
  }),
  chart(sailings, { ...monthly, title: 'Over a picture', background: { image: sea, veil: 0.8 } }),
  chart(sailings, { ...monthly, title: 'Names in a corner', legend: 'inside top left' }),
  chart(sailings, { ...monthly, title: 'Names below', legend: { at: 'bottom', columns: 3 } }),
  chart(sailings, {
    ...monthly,
    title: 'Colours that are told',
    scales: { color: { colors: { 'North Sound': '#b3261e', 'Tern Point': '#1b6ca8' } } },
  }),
]
