import type { Course, CourseItem, PlacedItem } from '../course/index.ts'
import { everyExpected, type ExpectedCourse } from '../expand/index.ts'
import { foldedName } from '../naming/index.ts'
import type { PageFacts } from '../page/index.ts'
import { calibrated } from './confidence.ts'
import { evidenceFor, foundItem, tellingAmong, totalWeight } from './evidence.ts'
import type { Pair } from './pairing.ts'

/** What being set as the home page says for a page, in log-odds. Name, content and marks may outweigh it. */
const setAsHome = 3
/** So much must speak for a page that is not set as the home page. */
const leastForHome = 4

/**
 * The page that is the home page: the one that is set as such, unless it is another part of the template by its name or
 * another page is more like the home page, as where an instructor set a page of their own.
 */
export const homePageIn = (
  { home, parts }: ExpectedCourse,
  course: Course,
  items: readonly PlacedItem[],
  pageOf: (item: CourseItem) => PageFacts | null,
  near: string,
  isPaired: (id: string) => boolean,
): Pick<Pair, 'found' | 'confidence' | 'reasons'> | null => {
  const names = new Set(everyExpected(parts).map(({ name }) => foldedName(name)))
  const telling = tellingAmong([home.name])
  const ranked = items
    .filter(({ item }) => item.kind === home.kind && !isPaired(item.id))
    .map(({ item, module, index }) => {
      const isSet = item.id === course.homePage
      const found = foundItem(item, module, index, pageOf)
      const evidence = evidenceFor(home, found, found.place, null, near, telling)
      return {
        item,
        isSet,
        isAnother: names.has(found.folded) && found.folded !== foldedName(home.name),
        says: evidence.map(({ says }) => says),
        weight: totalWeight(evidence) + (isSet ? setAsHome : 0),
      }
    })
    .filter(({ isAnother }) => !isAnother)
    .sort((a, b) => b.weight - a.weight)
  const set = ranked.find(({ isSet }) => isSet)
  const [best] = ranked
  if (best && best !== set && best.weight >= leastForHome)
    return {
      found: best.item.id,
      confidence: calibrated(best.weight, best.weight - Math.max(0, ranked[1]?.weight ?? 0)),
      reasons: best.says,
    }
  return set
    ? { found: set.item.id, confidence: 1, reasons: ['set as the home page', ...set.says] }
    : null
}
