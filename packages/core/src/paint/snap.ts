const out: [number, number, number, number] = [0, 0, 0, 0]

/** Level and upright lines moved onto whole device pixels, so that hairlines are crisp. The result is valid until the next call. */
export function snapped(
  x1: number,
  y1: number,
  x2: number,
  y2: number,
  width: number,
  density: number,
): readonly [number, number, number, number] {
  const half = Math.round(width * density) % 2 === 1 ? 0.5 : 0
  const snap = (value: number) => (Math.floor(value * density + 0.001) + half) / density
  out[0] = x1 === x2 ? snap(x1) : x1
  out[1] = y1 === y2 ? snap(y1) : y1
  out[2] = x1 === x2 ? out[0] : x2
  out[3] = y1 === y2 ? out[1] : y2
  return out
}
