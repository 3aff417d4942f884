// Tables unlike in shape to those of the demo: each as columns by name, from the same scenario, the same every time.

/** Numbers between 0 and 1 that are the same every time. */
function chance(seed) {
  let state = seed
  return () => {
    state = (state * 1664525 + 1013904223) % 4294967296
    return state / 4294967296
  }
}
const range = (count, of) => Array.from({ length: count }, (_, i) => of(i))
const day = i => new Date(Date.UTC(2024, 0, 1 + i)).toISOString().slice(0, 10)
const month = i => `${2024 + Math.floor(i / 12)}-${String((i % 12) + 1).padStart(2, '0')}`

export const ROUTES = [
  'North Sound',
  'Gannet Bay',
  'Tern Point',
  'Outer Skerries',
  'Kelp Narrows',
  'Seal Rocks',
  'Long Holm',
  'Cormorant Reach',
  'Whale Firth',
  'Stack Road',
  'Puffin Gap',
  'Lantern Isle',
]
const PIERS = [
  'Old Harbour Steps and Ticket Hall',
  'Gannet Slip, lower landing stage',
  'The Lighthouse Keepers’ Landing',
  'Tern Point Emergency Pontoon No. 2',
  'Upper Skerry Cattle and Freight Quay',
  'Kelpworks',
  'Seal Rocks Seasonal Visitor Jetty',
  'Donaudampfschifffahrtsanlegestelle',
  'St. Brannoc’s Stairs',
  'North Sound Interchange',
]
const SCRIPTS = {
  chinese: ['北海峡', '塘鹅湾', '燕鸥角', '外礁群岛', '海带水道', '海豹岩旅客码头'],
  arabic: ['مضيق الشمال', 'خليج الأطيش', 'رأس الخرشنة', 'الجزر الخارجية', 'ممر عشب البحر', 'صخور الفقمة'],
  hebrew: ['מצר הצפון', 'מפרץ הסולה', 'כף השחפית', 'האיים החיצוניים', 'מעבר האצות', 'סלעי כלב הים'],
  devanagari: ['उत्तरी जलसंधि', 'गैनेट खाड़ी', 'टर्न अंतरीप', 'बाहरी द्वीप', 'समुद्री घास मार्ग', 'सील चट्टानें'],
  thai: ['ช่องแคบเหนือ', 'อ่าวนกแกนเน็ต', 'แหลมนกนางนวล', 'หมู่เกาะรอบนอก', 'ช่องสาหร่ายทะเล', 'โขดหินแมวน้ำ'],
  cyrillic: [
    'Северный пролив',
    'Залив Олуш',
    'Мыс Крачки',
    'Внешние Шхеры',
    'Ламинариевый проход',
    'Тюленьи скалы',
  ],
}

/** Months of each of some routes, with passengers and what they earned. */
function months(routes, count, seed, scale = 1) {
  const next = chance(seed)
  const rows = routes.flatMap((route, r) =>
    range(count, i => {
      const season = 1 + 0.45 * Math.sin(((i % 12) / 12) * 2 * Math.PI - 1.6)
      const passengers = Math.round((9000 / (1 + r * 0.35)) * season * (0.85 + next() * 0.3)) * scale
      return { month: month(i), route, passengers, result: Math.round(passengers * 1.2 - 5200) }
    }),
  )
  return columns(rows)
}

function columns(rows) {
  const out = {}
  for (const name of Object.keys(rows[0] ?? {})) out[name] = rows.map(row => row[name])
  return out
}

/** A log-normal wait in hours, and one far beyond all others. */
function waits() {
  const next = chance(7)
  const hours = range(180, () => Math.round(Math.exp((next() + next() + next() - 1.5) * 1.1) * 30) / 10)
  hours[77] = 96
  return { crossing: range(180, i => `C${i + 1}`), delay_hours: hours, route: range(180, i => ROUTES[i % 4]) }
}

function scatter(count, seed) {
  const next = chance(seed)
  const wind = range(count, () => Math.round((4 + next() * 34) * 10) / 10)
  return {
    wind_knots: wind,
    delay_minutes: wind.map(w => Math.round((w - 8) * (0.4 + next()) * 10) / 10),
    route: range(count, i => ROUTES[i % 3]),
    passengers: range(count, () => Math.round(20 + next() * 400)),
  }
}

const named = names => ({
  route: names,
  passengers: range(names.length, i => 48000 - i * 6100 + ((i * 37) % 11) * 90),
})

/** The tables, by what is unusual in them. */
export const TABLES = {
  'twelve routes': months(ROUTES, 24, 1),
  'long names': {
    pier: PIERS,
    passengers: range(10, i => 91000 - i * i * 880 - i * 500),
    tonnes: range(10, i => 40 + i * 31),
  },
  'one row': {
    day: ['2025-03-04'],
    route: ['North Sound'],
    passengers: [412],
    wind_knots: [17],
    delay_minutes: [6],
  },
  'no rows': { day: [], route: [], passengers: [], wind_knots: [], delay_minutes: [] },
  'a far value': waits(),
  'all equal': {
    day: range(20, day),
    route: range(20, i => ROUTES[i % 4]),
    passengers: range(20, () => 240),
    wind_knots: range(20, () => 12),
  },
  'both sides of zero': months(ROUTES.slice(0, 4), 12, 5),
  'below zero alone': {
    vessel: ['Guillemot', 'Fulmar', 'Dunlin', 'Petrel', 'Skua'],
    cost: [-1800000, -1412000, -990500, -640200, -12050],
    crew: [42, 30, 24, 20, 9],
  },
  tiny: {
    sample: range(9, i => `S${i + 1}`),
    salt: range(9, i => (3.1 + ((i * 7) % 5) * 0.43) * 1e-7),
    depth: range(9, i => i * 0.002),
  },
  huge: {
    vessel: ['Guillemot', 'Fulmar', 'Dunlin', 'Petrel', 'Skua'],
    plankton: [9.3e15, 6.85092e15, 4.1e15, 2.22e15, 8.7e14],
    bytes: [1.2e18, 9.9e17, 3.3e17, 8.1e16, 2e15],
  },
  gaps: (() => {
    const whole = months(ROUTES.slice(0, 3), 18, 9)
    return {
      ...whole,
      passengers: whole.passengers.map((n, i) => ((i % 18 > 6 && i % 18 < 10) || i % 11 === 0 ? '' : n)),
    }
  })(),
  years: (() => {
    const next = chance(3)
    const rows = ROUTES.slice(0, 3).flatMap((pier, p) =>
      range(31, i => ({
        year: String(1995 + i),
        pier,
        passengers: Math.round(90000 * (1 + p * 0.4) + i * 2100 * (p - 0.6) + next() * 9000),
      })),
    )
    return columns(rows)
  })(),
  weeks: (() => {
    const next = chance(4)
    return {
      week: range(53, i => `2024-W${String(i + 1).padStart(2, '0')}`.slice(0, 8)),
      passengers: range(53, i => Math.round(4000 + 2600 * Math.sin(i / 8.3) + next() * 900)),
      late: range(53, () => Math.round(next() * 30)),
    }
  })(),
  codes: {
    berth: range(28, i => `SK-${1040 + i * 7}`),
    calls: range(28, i => 12 + ((i * 53) % 88)),
    shelf: range(28, i => `${(i % 5) + 1}`),
  },
  bubbles: (() => {
    const next = chance(11)
    const offices = [...ROUTES, 'Harbour Steps', 'Gannet Slip']
    return {
      office: offices,
      sold: range(14, () => Math.round(900 + next() * 8000)),
      kept: range(14, () => Math.round(40 + next() * 55)),
      staff: range(14, i => 2 + i * i),
    }
  })(),
  'many points': scatter(900, 13),
  'sixty piers': {
    pier: range(60, i => `Pier ${i + 1}`),
    calls: range(60, i => Math.round(9000 / (i + 2))),
    island: range(60, i => ROUTES[i % 12]),
  },
  shares: {
    kind: ['Adult', 'Child', 'Concession', 'Islander', 'Group', 'Crew', 'Press'],
    sold: [4133, 2988, 1902, 811, 702, 44, 9],
    year: range(7, () => '2025'),
  },
  scripts: {
    route: Object.values(SCRIPTS).map(names => names[5]),
    passengers: range(6, i => 48000 - i * 6100),
    share: range(6, i => 0.31 - i * 0.045),
  },
  'one script': named(SCRIPTS.devanagari),
}
for (const [script, names] of Object.entries(SCRIPTS))
  if (script !== 'devanagari') TABLES[`one script: ${script}`] = named(names)
