/** Longer texts are not kept as keys: a few of them would take more memory than all others. */
const longestKey = 10_000

/**
 * Works something out once for each key and remembers it. A work that is asked for more than `most` different keys
 * forgets all of them and begins anew, so that memory stays bounded; the answers are the same either way.
 */
export const remember = <K extends string | number, V>(
  most: number,
  work: (key: K) => V,
): ((key: K) => V) => {
  const known = new Map<K, V>()
  return (key) => {
    const before = known.get(key)
    if (before !== undefined) return before
    const value = work(key)
    if (typeof key === 'string' && key.length > longestKey) return value
    if (known.size >= most) known.clear()
    known.set(key, value)
    return value
  }
}

/** Works something out once for each object, and remembers it as long as the object is there. */
export const rememberOf = <K extends object, V>(work: (key: K) => V): ((key: K) => V) => {
  const known = new WeakMap<K, V>()
  return (key) => {
    const before = known.get(key)
    if (before !== undefined) return before
    const value = work(key)
    known.set(key, value)
    return value
  }
}
