/** Whether a point lies within an outline, by how often a ray from it crosses its edge. */
export function isInside(
  outline: readonly (readonly [x: number, y: number])[],
  x: number,
  y: number,
): boolean {
  let inside = false
  for (let i = 0, j = outline.length - 1; i < outline.length; j = i++) {
    const [ax, ay] = outline[i]
    const [bx, by] = outline[j]
    if (ay > y !== by > y && x < ((bx - ax) * (y - ay)) / (by - ay) + ax) inside = !inside
  }
  return inside
}
