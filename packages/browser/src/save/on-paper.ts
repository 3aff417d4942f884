/** Shows a drawing of lines and letters over the plate, for paper, with what stands under it; returns what takes both away. */
export function putOnPaper(
  svg: string,
  below: readonly HTMLElement[],
  { root, outer }: { root: HTMLElement; outer: HTMLElement },
  container: HTMLElement,
): () => void {
  const drawing = new DOMParser().parseFromString(svg, 'image/svg+xml').documentElement
  const paper = document.importNode(drawing, true) as unknown as SVGElement
  Object.assign(paper.style, { position: 'absolute', left: '0', top: '0' })
  root.append(paper)
  if (below.length === 0) return () => paper.remove()
  const under = document.createElement('div')
  under.append(...below)
  outer.append(under)
  // The room of the chart grows by what stands under it, so that it lies over nothing else on the page.
  const rooms = [outer, container].map(({ style }) => ({ style, height: style.height }))
  for (const { style } of rooms) style.height = 'auto'
  return () => {
    paper.remove()
    under.remove()
    for (const { style, height } of rooms) style.height = height
  }
}
