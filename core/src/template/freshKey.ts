/** A key that is not taken, made from a name; its fields are left out. */
export const freshKey = (name: string, taken: ReadonlySet<string>): string => {
  const plain = name
    .normalize('NFKD')
    .replace(/\p{M}/gu, '')
    .toLowerCase()
    .replace(/\{[^}]*\}/g, '')
  const base =
    plain
      .replace(/[^a-z0-9]+/g, '-')
      .replace(/^-+|-+$/g, '')
      .slice(0, 60)
      .replace(/-+$/, '') || 'part'
  for (let n = 1; ; n++) {
    const key = n === 1 ? base : `${base}-${n}`
    if (!taken.has(key)) return key
  }
}
