// Searches two further tiers of the category colours of a theme: each hue lighter or darker, apart from all others.
// The result stands in packages/core/src/theme/palette.ts, and palette.test.ts measures it.
// Usage: node scripts/palette-tiers.mjs day|night
import { converter, differenceCiede2000, displayable, formatHex, parse, wcagContrast } from 'culori'
import { DAY_COLORS, NIGHT_COLORS } from '../packages/core/dist/theme/palette.js'

const [theme = 'day'] = process.argv.slice(2)
const paper = { day: '#fdfcf9', night: '#15191c' }[theme]
const base = { day: DAY_COLORS, night: NIGHT_COLORS }[theme]
const oklch = converter('oklch')
const difference = differenceCiede2000()
const hues = base.map(text => oklch(parse(text)))

const taken = [...base.map(text => parse(text))]
for (let tier = 1; tier <= 2; tier++) {
  const own = hues.map(({ h }) => {
    let best
    let most = -1
    for (let l = 0.25; l <= 0.93; l += 0.01)
      for (let c = 0.03; c <= 0.2; c += 0.01)
        for (const turn of [-10, -5, 0, 5, 10]) {
          const color = { mode: 'oklch', l, c, h: h + turn }
          if (!displayable(color) || wcagContrast(color, paper) < 3) continue
          const apart = Math.min(...taken.map(other => difference(color, other)))
          if (apart > most) [best, most] = [color, apart]
        }
    taken.push(best)
    return formatHex(best)
  })
  console.log(theme, 'tier', tier, own.join(' '))
}
const least = Math.min(...taken.flatMap((a, i) => taken.slice(0, i).map(b => difference(a, b))))
console.log(theme, 'all', taken.length, 'apart', least.toFixed(2))
