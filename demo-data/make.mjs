// Writes the tables of the Skerry Line, an invented ferry company among invented islands. Seeded: the same files every time.
// Usage: node demo-data/make.mjs [folder]
import { mkdirSync, writeFileSync } from 'node:fs'
import { fileURLToPath } from 'node:url'

const folder = process.argv[2] ?? fileURLToPath(new URL('.', import.meta.url))
mkdirSync(folder, { recursive: true })

let seed = 20_230_101
/** Uniform in [0, 1): mulberry32, a small well-known generator in the public domain. */
function random() {
  seed = (seed + 0x6d2b79f5) | 0
  let t = Math.imul(seed ^ (seed >>> 15), 1 | seed)
  t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t
  return ((t ^ (t >>> 14)) >>> 0) / 4_294_967_296
}
const normal = () => Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random())
const pick = list => list[Math.floor(random() * list.length)]
const DAY = 86_400_000
const iso = time => new Date(time).toISOString()
const cell = value =>
  /[",\n]/.test(String(value)) ? `"${String(value).replaceAll('"', '""')}"` : String(value)
function write(name, header, rows) {
  writeFileSync(
    `${folder}/${name}.csv`,
    `${[header, ...rows].map(row => row.map(cell).join(',')).join('\n')}\n`,
  )
  console.log(`${name}.csv: ${rows.length} rows`)
}

const ROUTES = [
  { name: 'North Sound', daily: 5, load: 96, minutes: 55, fare: 7.5, vessels: ['Guillemot', 'Fulmar'] },
  { name: 'Gannet Bay', daily: 4, load: 71, minutes: 40, fare: 6, vessels: ['Fulmar', 'Sandpiper'] },
  { name: 'Tern Point', daily: 4, load: 48, minutes: 25, fare: 4.5, vessels: ['Sandpiper', 'Dunlin'] },
  { name: 'Outer Skerries', daily: 2, load: 62, minutes: 150, fare: 18, vessels: ['Great Skua'] },
  {
    name: 'Kelp Narrows',
    daily: 4,
    load: 39,
    minutes: 20,
    fare: 4,
    vessels: ['Dunlin'],
    opens: Date.UTC(2024, 3, 29),
  },
]
const VESSELS = [
  { vessel: 'Guillemot', capacity: 240, cars: 42, built: 2009 },
  { vessel: 'Fulmar', capacity: 180, cars: 30, built: 2003 },
  { vessel: 'Sandpiper', capacity: 120, cars: 16, built: 2014 },
  { vessel: 'Dunlin', capacity: 90, cars: 8, built: 2018 },
  { vessel: 'Great Skua', capacity: 220, cars: 36, built: 1998 },
]
const capacity = new Map(VESSELS.map(v => [v.vessel, v]))
const HOURS = [6.5, 8.25, 10, 12.5, 15, 17.25, 19.5]

const first = Date.UTC(2023, 0, 1)
const days = 365 + 366 + 365
const sailings = []
const monthly = new Map()
const tickets = new Map()
let wind = 12
let id = 1
for (let d = 0; d < days; d++) {
  const day = first + d * DAY
  const date = new Date(day)
  const weekend = [0, 5, 6].includes(date.getUTCDay())
  const phase = (d % 365.25) / 365.25
  const winter = 0.5 + 0.5 * Math.cos(2 * Math.PI * (phase - 0.04))
  const summer = Math.exp(-(((phase - 0.56) / 0.13) ** 2))
  const growth = 1 + 0.06 * (d / 365)
  // Weather carries over from day to day, and storms come in winter.
  wind = Math.max(
    2,
    0.72 * wind + 0.28 * (9 + 11 * winter) + normal() * 4 + (random() < 0.035 * winter ? 22 : 0),
  )
  for (const route of ROUTES) {
    if (route.opens && day < route.opens) continue
    const young = route.opens ? Math.min(1, 0.35 + (day - route.opens) / (200 * DAY)) : 1
    const count = Math.max(1, route.daily + (summer > 0.6 ? 1 : 0) - (winter > 0.9 && !weekend ? 1 : 0))
    for (let n = 0; n < count; n++) {
      const hour = HOURS[Math.floor((n + 0.5) * (HOURS.length / count))]
      const knots = Math.max(1, wind + normal() * 3 + Math.sin((hour / 24) * 2 * Math.PI) * 1.5)
      if (knots > 44 && random() < 0.7) continue
      const vessel = pick(route.vessels)
      const room = capacity.get(vessel)
      const rush = hour < 9 || (hour > 16 && hour < 18.5) ? 1.2 : 0.95
      const wish =
        route.load *
        growth *
        young *
        (0.72 + 0.85 * summer) *
        (weekend ? 1.28 : 0.93) *
        rush *
        Math.exp(normal() * 0.2)
      const passengers = Math.max(0, Math.min(room.capacity, Math.round(wish * (knots > 34 ? 0.6 : 1))))
      const vehicles = Math.min(room.cars, Math.round(passengers * (0.1 + 0.05 * random())))
      const delay = Math.round(
        Math.max(
          -4,
          normal() * 2.5 +
            1.5 +
            Math.max(0, knots - 18) * 0.7 +
            (passengers / room.capacity > 0.95 ? 6 : 0) +
            (random() < 0.02 ? 25 * random() : 0),
        ),
      )
      const fuel = Math.round(
        route.minutes * (room.capacity / 24) * (1 + Math.max(0, knots - 15) * 0.012) * (1 + normal() * 0.04),
      )
      const revenue = Math.round((passengers * route.fare + vehicles * route.fare * 3.2) * 100) / 100
      sailings.push([
        id++,
        iso(day + hour * 3_600_000).slice(0, 16),
        route.name,
        vessel,
        passengers,
        vehicles,
        delay,
        Math.round(knots * 10) / 10,
        fuel,
        revenue,
      ])
      const month = iso(day).slice(0, 7)
      const key = `${month}|${route.name}`
      monthly.set(key, (monthly.get(key) ?? 0) + passengers)
      for (const [kind, share] of [
        ['Adult', 0.58],
        ['Child', 0.19],
        ['Islander', 0.16],
        ['Dog', 0.07],
      ]) {
        tickets.set(
          `${month}|${kind}`,
          (tickets.get(`${month}|${kind}`) ?? 0) + passengers * share * (1 + normal() * 0.03),
        )
      }
    }
  }
}
// What hands and machines do to data: cells left empty, a word where a number belongs, a comma that slipped in.
for (let n = 0; n < 60; n++) pick(sailings)[6] = ''
for (let n = 0; n < 25; n++) pick(sailings)[7] = ''
sailings[4210][4] = 'full'
sailings[9977][4] = '7O'
sailings[15_003][8] = 'n.a.'
write(
  'sailings',
  [
    'id',
    'departed',
    'route',
    'vessel',
    'passengers',
    'vehicles',
    'delay_minutes',
    'wind_knots',
    'fuel_litres',
    'revenue',
  ],
  sailings,
)

write(
  'tickets',
  ['month', 'kind', 'sold'],
  [...tickets].map(([key, sold]) => [...key.split('|'), Math.round(sold)]),
)
write(
  'targets',
  ['month', 'route', 'passengers'],
  [...monthly].map(([key, count]) => [
    ...key.split('|'),
    Math.round((count * (0.9 + 0.2 * random())) / 100) * 100,
  ]),
)
write(
  'vessels',
  ['vessel', 'capacity', 'cars', 'built'],
  VESSELS.map(v => Object.values(v)),
)

const PIERS = [
  'Harbour Steps',
  'Gannet Slip',
  'Tern Jetty',
  'Skerry Light',
  'Kelp Quay',
  'Old Mole',
  'Weir Stage',
  'Cairn Landing',
  'Sound End',
  'Marram Pier',
  'Brine Wharf',
  'Puffin Stairs',
]
const years = Array.from({ length: 25 }, (_, i) => 2001 + i)
write(
  'piers',
  ['pier', ...years],
  PIERS.map((pier, p) => {
    let level = 120_000 * Math.exp(-p * 0.22) * (0.8 + 0.4 * random())
    const drift = 0.012 + normal() * 0.022
    return [
      pier,
      ...years.map(year => {
        level *= 1 + drift + normal() * 0.06 - (year === 2010 && p % 3 === 0 ? 0.18 : 0)
        return Math.round(level)
      }),
    ]
  }),
)
