import type { BoundDrawing } from '../bind/model.ts'
import type { Batch } from '../scene/scene.ts'

/** The shapes with the addresses that their marks lead to. */
export function withLinks(batches: Batch[], { links, marks }: BoundDrawing): Batch[] {
  if (!links) return batches
  const byKey = new Map<string | number, string>()
  for (let mark = 0; mark < marks.length; mark++) {
    const link = links(mark)
    if (link) byKey.set(marks.keyOf(mark), link)
  }
  return batches.map(batch =>
    batch.part === 'data' && batch.keys.length > 0 && batch.kind !== 'lines' && batch.kind !== 'areas'
      ? { ...batch, links: shape => byKey.get(batch.keys[shape]) ?? '' }
      : batch,
  )
}
