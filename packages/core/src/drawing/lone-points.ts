import type { Discs, Lines } from '../scene/scene.ts'

/** Points with a gap on either side, which a line alone would not show. */
export function lonePoints(lines: Lines): Discs[] {
  const { x, y, starts, keys, rows } = lines
  const found: { i: number; line: number }[] = []
  lines.names.forEach((_, line) => {
    const present = (i: number) => i >= starts[line] && i < starts[line + 1] && x[i] === x[i] && y[i] === y[i]
    for (let i = starts[line]; i < starts[line + 1]; i++)
      if (present(i) && !present(i - 1) && !present(i + 1)) found.push({ i, line })
  })
  if (found.length === 0) return []
  return [
    {
      kind: 'discs',
      id: `${lines.id}/lone`,
      part: 'data',
      clip: true,
      keys: keys.length === 0 ? found.map(({ i }) => i) : found.map(({ i }) => keys[i]),
      rows: rows && (shape => rows(found[shape].i)),
      colors: lines.colors,
      color: Uint16Array.from(found, ({ line }) => lines.color[line]),
      alpha: lines.alpha && Float32Array.from(found, ({ line }) => lines.alpha![line]),
      along: lines.along,
      x: Float32Array.from(found, ({ i }) => x[i]),
      y: Float32Array.from(found, ({ i }) => y[i]),
      radius: Float32Array.from(found, ({ line }) => Math.max(2.5, lines.width[line])),
    },
  ]
}
