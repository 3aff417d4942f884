// Writes packages/core/src/theme/inter-widths.ts: how wide each character of Inter is, so that text can be measured
// without opening a font. Run again when the font package
// changes; with --check it fails where that is due.
import { readFileSync, writeFileSync } from 'node:fs'
import { createRequire } from 'node:module'
import * as fontkit from 'fontkit'

const require = createRequire(import.meta.url)
const fonts = { 400: '400Regular/Inter_400Regular.ttf', 600: '600SemiBold/Inter_600SemiBold.ttf' }
const ranges = [
  [0x20, 0x7e],
  [0xa0, 0x17f],
  [0x1c0, 0x24f],
  [0x370, 0x3ff],
  [0x400, 0x4ff],
  [0x1e80, 0x1eff],
  [0x2010, 0x2044],
  [0x20a0, 0x20bf],
  [0x2190, 0x2193],
  [0x2200, 0x2265],
]
const rows = Object.entries(fonts).map(([weight, file]) => {
  const font = fontkit.openSync(require.resolve(`@expo-google-fonts/inter/${file}`))
  const parts = ranges.map(([first, last]) => {
    const widths = []
    for (let code = first; code <= last; code++) {
      widths.push(
        font.hasGlyphForCodePoint(code)
          ? Math.round((font.glyphForCodePoint(code).advanceWidth / font.unitsPerEm) * 1000)
          : 0,
      )
    }
    return `    [${first}, '${widths.map(w => w.toString(36)).join(' ')}'],`
  })
  return `  ${weight}: [\n${parts.join('\n')}\n  ],`
})
const { version } = require('@expo-google-fonts/inter/package.json')
const to = new URL('../packages/core/src/theme/inter-widths.ts', import.meta.url)
const text = `// Written by scripts/inter-widths.mjs from Inter (Copyright The Inter Project Authors, SIL Open Font License 1.1) of @expo-google-fonts/inter ${version}: advance widths in thousandths of the font size, base 36, from each first code point on; 0 where Inter has no glyph.\nexport const INTER_WIDTHS: Record<400 | 600, [first: number, widths: string][]> = {\n${rows.join('\n')}\n}\n`
if (!process.argv.includes('--check')) writeFileSync(to, text)
else if (readFileSync(to, 'utf8') !== text) {
  console.error(
    'The widths of letters are not those of the font that is installed. Run node scripts/inter-widths.mjs.',
  )
  process.exit(1)
}
