import {
  everyCourseItem,
  type Course,
  type CourseItem,
  type Facts,
  type Template,
} from '@wickerframe/core'
import { makeCourse, storyAt } from '@wickerframe/demo'

/** What a course of the benchmarks holds. */
export const wanted = { items: 150, pages: 60, kilobytes: 250 }

/** So many characters of what instructors write, or a little more; the same for the same number. */
const prose = (n: number, characters: number): string => {
  let html = ''
  for (let i = 1; html.length < characters; i++)
    html += `<h4>Part ${i}</h4><p>The ${n + i}th watch writes what it saw in the log, <a href="/logs/${n}">signs it</a> and hands over. <strong>Nothing</strong> is left for later; see page ${i}.</p><ul><li>lines</li><li>lights</li><li>weather</li></ul>`
  return html
}

/**
 * A demo course grown to the size of the benchmarks by what instructors add: notes of their own in each week, links, and
 * text on every page. Three pages in ten say something that no other course says; the others are those of every course.
 */
export const sizedCourse = (id: string, template: Template, facts: Facts, n: number): Course => {
  const course: Course = { ...makeCourse(id, template, facts, storyAt(n), n), published: true }
  const weeks = course.modules.filter((module) => module.children.length > 2)
  const made = everyCourseItem(course).map(({ item }) => item)
  const like = made.find((item) => item.html !== null)
  if (!like) return course
  let pages = made.filter((item) => item.html !== null).length
  for (const item of made.toReversed())
    if (pages > wanted.pages && item.html !== null && /notes|checklist|reading/.test(item.name)) {
      item.html = null
      pages -= 1
    }
  for (let i = 0, items = made.length; items < wanted.items; i++, items++) {
    const isPage = pages < wanted.pages
    if (isPage) pages += 1
    const added: CourseItem = {
      ...like,
      id: `${id}-own-${i}`,
      kind: isPage ? 'page' : 'web-link',
      name: isPage ? `More on the watch, ${i + 1}` : `Chart sheet ${i + 1}`,
      html: isPage ? '' : null,
      url: `/courses/${id}/items/own-${i}`,
      recordedAs: undefined,
    }
    weeks[i % weeks.length]?.children.push(added)
  }
  const written = everyCourseItem(course).flatMap(({ item }) => (item.html === null ? [] : [item]))
  const missing =
    wanted.kilobytes * 1024 - written.reduce((sum, item) => sum + (item.html?.length ?? 0), 0)
  written.forEach((item, i) => {
    const own = (i * 7 + n) % 10 < 3
    item.html = `${item.html}${prose(own ? n * 100 + i : i, missing / written.length - 120)}${own ? `<p>Written for course ${n}, page ${i}.</p>` : ''}`
  })
  return course
}
