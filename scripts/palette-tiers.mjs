// Searches two further tiers of the category colours of a theme: each hue lighter or darker, apart from all others and
// from the grey of "the rest". The result stands in packages/core/src/theme/palette.ts, and palette.test.ts measures it.
// Usage: node scripts/palette-tiers.mjs day|night
import { converter, differenceCiede2000, displayable, formatHex, parse, wcagContrast } from 'culori'
import { DAY_COLORS, NIGHT_COLORS } from '../packages/core/dist/theme/palette.js'
import { day, night } from '../packages/core/dist/theme/theme.js'

const [name = 'day'] = process.argv.slice(2)
const { background, missing } = { day, night }[name]
const base = { day: DAY_COLORS, night: NIGHT_COLORS }[name]
const oklch = converter('oklch')
const difference = differenceCiede2000()
const hues = base.map(text => oklch(parse(text)).h)

/** Every colour near a hue that is seen on the background and is no grey, next to black, or glaring. */
const kindred = hues.map(hue => {
  const list = []
  for (let l = 0.33; l <= 0.9; l += 0.02)
    for (let c = 0.055; c <= 0.19; c += 0.015)
      for (const turn of [-15, -10, -5, 0, 5, 10, 15]) {
        const color = { mode: 'oklch', l, c, h: hue + turn }
        if (l + c > 1) continue
        if (displayable(color) && wcagContrast(color, background) >= 3) list.push(color)
      }
  return list
})

const fixed = [missing, ...base].map(text => parse(text))
const tiers = Array.from({ length: 16 })
// One after the other at first, then each anew among all others, until nothing gets better.
for (let round = 0; round < 12; round++) {
  let better = false
  for (let i = 0; i < tiers.length; i++) {
    const others = [...fixed, ...tiers.filter((color, at) => color && at !== i)]
    const room = color => Math.min(...others.map(other => difference(color, other)))
    let most = tiers[i] ? room(tiers[i]) + 1e-6 : -1
    for (const color of kindred[i % hues.length]) {
      const apart = room(color)
      if (apart > most) {
        most = apart
        tiers[i] = color
        better = true
      }
    }
  }
  if (!better) break
}
/** How far apart the two of a list are that are most alike. */
const least = list => Math.min(...list.flatMap((a, i) => list.slice(0, i).map(b => difference(a, b))))

// Of the two of each hue the first tier takes those with which sixteen are farthest apart.
const first = swaps => hues.map((_, i) => tiers[(swaps >> i) & 1 ? i + 8 : i])
let chosen = 0
for (let swaps = 1; swaps < 256; swaps++)
  if (least([...fixed, ...first(swaps)]) > least([...fixed, ...first(chosen)])) chosen = swaps
console.log(name, 'tier 1', first(chosen).map(formatHex).join(' '))
console.log(
  name,
  'tier 2',
  first(chosen ^ 255)
    .map(formatHex)
    .join(' '),
)
console.log(
  name,
  'sixteen apart',
  least([...fixed, ...first(chosen)]).toFixed(2),
  'all',
  least([...fixed, ...tiers]).toFixed(2),
)
