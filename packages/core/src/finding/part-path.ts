/** Where a part of something stands that stands at a path itself; an empty path is the whole description. */
export const partPath = (path: string, part: string): string => (path ? `${path}.${part}` : part)
