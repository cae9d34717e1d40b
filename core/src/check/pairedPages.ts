import { everyCourseItem, type CourseItem } from '../course/index.ts'
import { success, type Result } from '../document/index.ts'
import { everyExpected, type ExpectedCourse, type ExpectedPart } from '../expand/index.ts'
import { analysePage, type PageFacts } from '../page/index.ts'
import { pairCourse } from '../pair/index.ts'
import { expectationFor, type Check } from './checkCourse.ts'
import { isPageUntold } from './untoldPage.ts'

/** What is needed to tell which page of a course stands for which part. */
export type PagesOf = Pick<
  Check,
  'template' | 'facts' | 'course' | 'asOf' | 'joins' | 'worked' | 'pageOf'
>

/** The pages of a course with what they stand for. */
export interface PairedPages {
  expected: ExpectedCourse
  /** Every page and what it stands for, in the order of the template. */
  pages: { part: ExpectedPart; item: CourseItem & { html: string } }[]
  /** What stands for a page that the platform does not tell, likewise. */
  untold: { part: ExpectedPart; item: CourseItem }[]
  pageOf: (item: CourseItem & { html: string }) => PageFacts
}

const hasPage = (item: CourseItem): item is CourseItem & { html: string } => item.html !== null

/** Tells which page of a course stands for which part; each page is read once. */
export const pairedPages = (check: PagesOf): Result<PairedPages> => {
  const worked = expectationFor(check)
  if (!worked.ok) return worked
  const { expected } = worked.value
  const read = check.pageOf ?? analysePage
  const known = new Map<string, PageFacts>()
  const pageOf = ({ id, html }: CourseItem & { html: string }): PageFacts => {
    const page = known.get(id) ?? read(html)
    known.set(id, page)
    return page
  }
  const { pairs } = pairCourse(
    expected,
    check.course,
    (item) => (hasPage(item) ? pageOf(item) : null),
    check.joins,
  )
  const found = new Map(pairs.map((pair) => [pair.expected, pair.found]))
  const items = new Map(everyCourseItem(check.course).map(({ item }) => [item.id, item]))
  const standing = [expected.home, ...everyExpected(expected.parts)].flatMap((part) => {
    const item = items.get(found.get(part.instance) ?? '')
    return item ? [{ part, item }] : []
  })
  return success({
    expected,
    pages: standing.flatMap(({ part, item }) => (hasPage(item) ? [{ part, item }] : [])),
    untold: standing.filter(({ part, item }) => isPageUntold(part, item)),
    pageOf,
  })
}
