/** A list in groups, each in the order of the list; the groups in the order in which their first comes. */
export const grouped = <T, K>(list: Iterable<T>, keyOf: (one: T) => K): Map<K, T[]> => {
  const groups = new Map<K, T[]>()
  for (const one of list) {
    const key = keyOf(one)
    const group = groups.get(key)
    if (group) group.push(one)
    else groups.set(key, [one])
  }
  return groups
}
