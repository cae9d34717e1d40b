/** Puts each own one after the sibling it followed in the layer, or first. */
export const withOwn = <T extends { key: string }>(
  above: readonly T[],
  layer: readonly T[],
  own: ReadonlySet<string>,
): T[] => {
  const list = [...above]
  layer.forEach((entry, index) => {
    if (!own.has(entry.key)) return
    const before = layer
      .slice(0, index)
      .findLast((sibling) => list.some((present) => present.key === sibling.key))
    list.splice(before ? list.findIndex((present) => present.key === before.key) + 1 : 0, 0, entry)
  })
  return list
}
