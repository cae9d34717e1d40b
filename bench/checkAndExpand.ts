/**
 * Measures check and expansion for 20, 200 and 2,000 generated courses, 30 % of whose pages are distinct, and one warm
 * course of 150 items and 60 pages against parse5 alone. A benchmark, not a test: it prints and asserts nothing.
 */
import { parseFragment } from 'parse5'
import {
  analysePage,
  checkCourse,
  everyCourseItem,
  expandCourse,
  type Check,
  type Course,
  type CourseItem,
  type PageFacts,
  mapCourse,
} from '@wickerframe/core'
import {
  demoTemplate,
  demoToday,
  factsOfRoster,
  makeCourse,
  makeRoster,
  storyAt,
} from '@wickerframe/demo'
import { sizedCourse } from './sizedCourse.ts'

const template = demoTemplate('harbour-standard.json')
const facts = factsOfRoster(makeRoster(1))[0]?.facts
if (!facts) throw new Error('the roster is empty')
const megabytes = () => process.memoryUsage().rss / 1024 / 1024
const median = (times: number[]): number =>
  times.toSorted((a, b) => a - b)[Math.floor(times.length / 2)] ?? 0
const timed = (work: () => void, rounds: number): number =>
  median(
    Array.from({ length: rounds }, () => {
      const start = performance.now()
      work()
      return performance.now() - start
    }),
  )

const one = sizedCourse('bench', template, facts, 1)
const htmls = everyCourseItem(one).flatMap(({ item }) => (item.html === null ? [] : [item.html]))
const check = (course: Course, known: Pick<Check, 'pageOf' | 'worked'> = {}) => {
  const result = checkCourse({ template, facts, course, asOf: demoToday, ...known })
  if (!result.ok) throw new Error(JSON.stringify(result.problems))
}
const cacheOf = () => {
  const kept = new Map<string, PageFacts>()
  return (html: string): PageFacts => {
    let page = kept.get(html)
    if (!page) kept.set(html, (page = analysePage(html)))
    return page
  }
}
for (let i = 0; i < 30; i++) {
  check(one)
  htmls.forEach((html) => parseFragment(html))
}
const parse = timed(() => htmls.forEach((html) => void parseFragment(html)), 40)
const cold = timed(() => check(one), 40)
const pageOf = cacheOf()
check(one, { pageOf })
const warm = timed(() => check(one, { pageOf }), 100)
const worked = new Map()
const again = timed(() => check(one, { pageOf, worked }), 100)
console.log(
  `one course, ${everyCourseItem(one).length} items, ${htmls.length} pages, ${Math.round(htmls.join('').length / 1024)} kB of HTML, code warm:`,
)
console.log(
  `  parse5 alone ${parse.toFixed(1)} ms; check, every page read anew ${cold.toFixed(1)} ms (ratio ${(cold / parse).toFixed(2)}); check, pages kept ${warm.toFixed(1)} ms, and what it should be kept as well ${again.toFixed(1)} ms`,
)

/** A course whose pages are its own in 30 of a hundred, and otherwise those of every course. */
const variantOf = (base: Course, n: number): Course => {
  let i = n
  const own = (item: CourseItem): CourseItem =>
    item.html !== null && (i += 7) % 10 < 3
      ? { ...item, html: `${item.html}<p>Written for course ${n}.</p>` }
      : item
  return { ...mapCourse(base, own), id: `bench-${n}` }
}
const bases = Array.from({ length: 20 }, (_, i) =>
  makeCourse('bench', template, facts, storyAt(i), i),
)
for (const count of [20, 200]) {
  globalThis.gc?.()
  let peak = megabytes()
  const pageOf = cacheOf()
  let distinct = 0
  const counted = (html: string) => {
    distinct += 1
    return pageOf(html)
  }
  const start = performance.now()
  for (let n = 0; n < count; n++) {
    const base = bases[n % bases.length]
    if (base) check(variantOf(base, n), { pageOf: counted })
    if (n % 50 === 0) peak = Math.max(peak, megabytes())
  }
  const seconds = (performance.now() - start) / 1000
  const expandStart = performance.now()
  for (let n = 0; n < count; n++) expandCourse({ template, facts, mintFrom: `bench-${n}` })
  const expandSeconds = (performance.now() - expandStart) / 1000
  console.log(
    `${String(count).padStart(5)} courses: check ${(count / seconds).toFixed(0)} a second, expansion ${(count / expandSeconds).toFixed(0)} a second, peak ${Math.max(peak, megabytes()).toFixed(0)} MB (${distinct} pages looked up)`,
  )
}
