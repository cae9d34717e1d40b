import { foldedName } from './fold.ts'

/** Names that people cannot tell apart: the same but for case, dashes, spaces and compatibility characters. */
export interface NameClash<T> {
  name: string
  who: T[]
}

/** The names that occur more than once, in the order in which they first do. */
export const nameClashes = <T>(named: readonly { name: string; who: T }[]): NameClash<T>[] => {
  const groups = new Map<string, NameClash<T>>()
  for (const { name, who } of named) {
    const key = foldedName(name)
    const group = groups.get(key)
    if (group) group.who.push(who)
    else groups.set(key, { name, who: [who] })
  }
  return [...groups.values()].filter((group) => group.who.length > 1)
}
