import type { CheckResult } from '@wickerframe/core'

export interface OpenOnPage {
  musts: number
  shoulds: number
}

/** How much is open on each page, by its id; pages on which nothing is are not there. */
export const openOnPages = (result: CheckResult | null): ReadonlyMap<string, OpenOnPage> => {
  const open = new Map<string, OpenOnPage>()
  for (const { strength, places } of result?.findings ?? [])
    for (const { place, waived } of places) {
      if (waived || strength === 'may' || place.foundId === null) continue
      const here = open.get(place.foundId) ?? { musts: 0, shoulds: 0 }
      open.set(place.foundId, here)
      if (strength === 'must') here.musts += 1
      else here.shoulds += 1
    }
  return open
}

/** Pages with most open musts first, then most shoulds; the others, and those alike, in the order of the course. */
export const urgentFirst = <Page extends { item: { id: string } }>(
  pages: readonly Page[],
  open: ReadonlyMap<string, OpenOnPage>,
): Page[] => {
  const at = ({ item }: Page): OpenOnPage => open.get(item.id) ?? { musts: 0, shoulds: 0 }
  return pages.toSorted((a, b) => at(b).musts - at(a).musts || at(b).shoulds - at(a).shoulds)
}
