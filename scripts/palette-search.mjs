// Searches category colours for the two themes: eight that stay apart for every kind of colour vision.
// The result stands in packages/core/src/theme/palette.ts, and palette.test.ts holds it to the same conditions.
// Usage: node scripts/palette-search.mjs day|night [seed] [rounds]
import {
  converter,
  differenceCiede2000,
  displayable,
  filterDeficiencyDeuter,
  filterDeficiencyProt,
  filterDeficiencyTrit,
  formatHex,
  wcagContrast,
} from 'culori'

const [theme = 'day', seed = '1', rounds = '60000'] = process.argv.slice(2)
const paper = { day: '#fdfcf9', night: '#15191c' }[theme]
// Wished for, in order of use: heather first, then colours that a person would name differently.
const anchors = {
  day: [
    [0.43, 0.15, 335],
    [0.68, 0.14, 82],
    [0.5, 0.09, 200],
    [0.6, 0.18, 33],
    [0.6, 0.15, 268],
    [0.38, 0.09, 142],
    [0.67, 0.17, 358],
    [0.32, 0.1, 285],
  ],
  night: [
    [0.68, 0.18, 330],
    [0.86, 0.14, 85],
    [0.72, 0.1, 200],
    [0.68, 0.18, 38],
    [0.62, 0.16, 272],
    [0.6, 0.13, 142],
    [0.85, 0.09, 5],
    [0.84, 0.07, 245],
  ],
}[theme]

let state = Number(seed) * 2654435761
const random = () => {
  state = (state + 0x6d2b79f5) | 0
  let t = Math.imul(state ^ (state >>> 15), 1 | state)
  t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t
  return ((t ^ (t >>> 14)) >>> 0) / 4294967296
}
const rgb = converter('rgb')
const difference = differenceCiede2000()
const sights = [filterDeficiencyProt(1), filterDeficiencyDeuter(1), filterDeficiencyTrit(1)]
const colorOf = ([l, c, h]) => rgb({ mode: 'oklch', l, c, h })

function judge(list) {
  let apart = 100
  let apartImpaired = 100
  const colors = list.map(colorOf)
  if (!colors.every(c => displayable(c))) return { cost: 1e6 }
  const seen = sights.map(sight => colors.map(sight))
  for (let i = 0; i < colors.length; i++) {
    for (let j = 0; j < i; j++) {
      apart = Math.min(apart, difference(colors[i], colors[j]))
      for (const row of seen) apartImpaired = Math.min(apartImpaired, difference(row[i], row[j]))
    }
  }
  const contrast = Math.min(...colors.map(c => wcagContrast(c, paper)))
  const strange = list.reduce((sum, [l, c, h], i) => {
    const [al, ac, ah] = anchors[i]
    const turn = Math.abs(((h - ah + 540) % 360) - 180)
    return sum + ((l - al) / 0.1) ** 2 + ((c - ac) / 0.05) ** 2 + (turn / 25) ** 2
  }, 0)
  const lacking =
    Math.max(0, 28.3 - apart) * 8 +
    Math.max(0, 15.4 - apartImpaired) * 12 +
    Math.max(0, 3.06 - contrast) * 200
  return { cost: lacking + strange * 0.6, apart, apartImpaired, contrast, strange }
}

let current = anchors.map(a => [...a])
while (judge(current).cost >= 1e6) current = current.map(([l, c, h]) => [l, c * 0.97, h])
let now = judge(current)
let best = { list: current, ...now }
for (let round = 0; round < Number(rounds); round++) {
  const heat = 1 - round / Number(rounds)
  const next = current.map(a => [...a])
  const one = next[Math.floor(random() * next.length)]
  one[0] = Math.min(0.95, Math.max(0.2, one[0] + (random() - 0.5) * 0.14 * heat))
  one[1] = Math.min(0.26, Math.max(0.05, one[1] + (random() - 0.5) * 0.08 * heat))
  one[2] = (one[2] + (random() - 0.5) * 50 * heat + 360) % 360
  const then = judge(next)
  if (then.cost < now.cost || random() < Math.exp((now.cost - then.cost) / (6 * heat + 0.01))) {
    current = next
    now = then
    if (now.cost < best.cost) best = { list: current, ...now }
  }
}
console.log(
  theme,
  seed,
  best.list.map(a => formatHex(colorOf(a))).join(' '),
  'cost',
  best.cost.toFixed(1),
  'apart',
  best.apart.toFixed(2),
  'impaired',
  best.apartImpaired.toFixed(2),
  'contrast',
  best.contrast.toFixed(2),
)
