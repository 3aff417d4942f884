/** The row that stands for each mark, found once: while a person drags, it is asked for in every frame. */
export function remembered(count: number, find: (mark: number) => number): (mark: number) => number {
  const rows = new Int32Array(count).fill(-1)
  return mark => {
    if (rows[mark] < 0) rows[mark] = find(mark)
    return rows[mark]
  }
}
