/** What is costly to work out again in every frame, kept for as long as the marks stay the same, by name. */
export type Memory = Map<string, unknown>

/** What a memory holds under a name, worked out at the first look. A name always holds the same kind of thing. */
export function remember<T>(memory: Memory, name: string, make: () => T): T {
  if (!memory.has(name)) memory.set(name, make())
  return memory.get(name) as T
}
