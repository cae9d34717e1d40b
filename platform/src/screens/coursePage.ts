import {
  aKind,
  type Course,
  type CourseItem,
  type CourseModule,
  everyCourseItem,
  everyModule,
  isCourseModule,
  isHeld,
  localTimeOf,
  kindWords,
  localDateOf,
  targetIn,
  targetWords,
} from '@wickerframe/core'
import { readBy, readerName } from '../readerName.ts'
import { button, escape, page, safeHtml } from './layout.ts'
import { paragraphsIn } from './paragraphs.ts'
import { fileOf, filesHeld } from './files.ts'
import { questionsOf } from './questions.ts'

const day = (course: Course, instant: string): string =>
  localDateOf(instant, course.timeZone ?? 'UTC')
const words = (course: Course, of: CourseItem | CourseModule): string =>
  of.staffOnly
    ? 'for staff only'
    : of.published
      ? of.opensAt
        ? `open from ${day(course, of.opensAt)}`
        : 'published'
      : 'hidden'
/** Buttons that show and hide something, and keep it for staff. */
const showing = (base: string, of: CourseItem | CourseModule): string =>
  button(`${base}/${of.published ? 'hide' : 'publish'}`, of.published ? 'hide it' : 'publish it') +
  button(
    `${base}/${of.staffOnly ? 'for-students' : 'for-staff'}`,
    of.staffOnly ? 'let students have it' : 'keep it for staff',
  )
const movingUp = (base: string, index: number): string =>
  index > 0 ? button(`${base}/move`, 'move it up', { at: String(index - 1) }) : ''

/** When it is due, or held and where. */
const dated = (course: Course, item: CourseItem): string =>
  item.dueAt === null
    ? ''
    : isHeld(item)
      ? `, held ${day(course, item.dueAt)} at ${localTimeOf(item.dueAt, course.timeZone ?? 'UTC')}${item.work?.minutes ? `, ${item.work.minutes} minutes` : ''}${item.work?.where ? `, ${escape(item.work.where)}` : ''}`
      : `, due ${day(course, item.dueAt)}`

const line = (course: Course, item: CourseItem): string =>
  `<li><a href="/courses/${escape(course.id)}/items/${escape(item.id)}">${escape(item.name)}</a> <span class="words">${kindWords(item.kind)}, ${words(course, item)}${dated(course, item)}${item.studentWork ? ', students have work in it' : ''}</span></li>`

const chapter = (course: Course, module: CourseModule, index: number, level = 2): string => {
  const base = `/courses/${course.id}/modules/${module.id}`
  return `<h${level} id="${escape(module.id)}">${escape(module.name)}</h${level}>
  <div class="words">This module is ${words(course, module)}. ${showing(base, module)}${movingUp(base, index)}</div>
  <form class="block" method="post" action="${base}/rename"><label>Name <input name="name" size="50" value="${escape(module.name)}"></label> <button>rename</button></form>
  <ol>${module.children.map((child, at) => (isCourseModule(child) ? `<li>${chapter(course, child, at, Math.min(6, level + 1))}</li>` : line(course, child))).join('')}</ol>
  <form class="block" method="post" action="${base}/add"><label>Add a page named <input name="name" size="30" required></label> <button>add it</button></form>
  <form class="block" method="post" action="${base}/add-file"><label>Add a file named <input name="name" size="30" required></label> <button>add it</button></form>`
}

export const coursesScreen = (
  courses: readonly { id: string; name: string; revision: string }[],
): string =>
  page(
    'All courses',
    `<h1>All courses</h1><ul>${courses.map((course) => `<li><a href="/courses/${escape(course.id)}">${escape(course.name)}</a> <span class="words">${escape(course.id)}, revision ${escape(course.revision)}</span></li>`).join('')}</ul>`,
  )

const linkTo = (course: Course, to: string): string | null => {
  const base = `/courses/${course.id}`
  const id = targetIn('item', to)
  if (id === null) return to === 'place:contents' ? base : /^https?:/.test(to) ? to : null
  if (everyModule(course.modules).some((module) => module.id === id)) return `${base}#${id}`
  return everyCourseItem(course).some(({ item }) => item.id === id) ? `${base}/items/${id}` : null
}

/** The navigation, each entry where it leads; what has no place of its own here says what it would lead to. */
const navigation = (course: Course): string => {
  if (course.navigation.length === 0) return ''
  const named = new Map<string, string>([
    ...everyModule(course.modules).map(({ id, name }) => [id, name] as const),
    ...everyCourseItem(course).map(({ item }) => [item.id, item.name] as const),
  ])
  const entry = ({ label, hidden, to }: Course['navigation'][number]): string => {
    const leads = to === 'place:home' && course.homePage ? `item:${course.homePage}` : to
    const link = leads === undefined ? null : linkTo(course, leads)
    const words =
      to === undefined
        ? ''
        : ` <span class="words">to ${escape(targetWords(to, (id) => named.get(id) ?? null))}</span>`
    const shown = link === null ? escape(label) : `<a href="${escape(link)}">${escape(label)}</a>`
    return `<li>${shown}${words}${hidden ? ' <span class="words">hidden from students</span>' : ''}</li>`
  }
  return `<nav aria-label="Course"><h3>Navigation</h3><ul>${course.navigation.map(entry).join('')}</ul></nav>`
}

const seenByWords = {
  enrolled: 'who is enrolled',
  institution: 'everybody at the college',
  anybody: 'anybody',
} as const
/** How the course is set, as far as students notice. */
const settings = ({ settings }: Course): string => {
  const { seenBy, arranged, picture } = settings ?? {}
  const told = [
    ...(seenBy ? [`seen by ${seenByWords[seenBy]}`] : []),
    ...(arranged ? [`arranged ${arranged.replace('-', ' ')}`] : []),
  ].join(', ')
  return `${picture ? `<p><img src="/files/${escape(encodeURIComponent(picture))}" alt="" style="max-height:6rem"></p>` : ''}${told === '' ? '' : `<p class="words">It is ${told}.</p>`}`
}

export const courseScreen = (course: Course): string =>
  page(
    course.name,
    `<h1>${escape(course.name)}</h1>
    <div class="words">The course is ${course.published ? 'published' : 'not published'}. ${button(`/courses/${course.id}/${course.published ? 'hide' : 'publish'}`, course.published ? 'take it back' : 'publish it')}</div>
    <form class="block" method="post" action="/courses/${escape(course.id)}/rename"><label>Name <input name="name" size="50" value="${escape(course.name)}"></label> <button>rename</button></form>
    ${settings(course)}
    ${navigation(course)}
    <h3>Contents</h3><ul>${course.homePage ? `<li><a href="/courses/${escape(course.id)}/items/${escape(course.homePage)}">Home page</a></li>` : '<li class="words">no home page is set</li>'}${course.modules.map((module) => `<li><a href="#${escape(module.id)}">${escape(module.name)}</a> <span class="words">${words(course, module)}</span></li>`).join('')}</ul>
    ${course.modules.map((module, index) => chapter(course, module, index)).join('')}
    ${course.stray.length > 0 ? `<h2>In no module</h2><ul>${course.stray.map((item) => `<li><a href="/courses/${escape(course.id)}/items/${escape(item.id)}">${escape(item.name)}</a></li>`).join('')}</ul>` : ''}
    ${filesHeld(course)}`,
  )

/** Every paragraph in one form: what was typed in one is kept with the others. */
const textEditor = (action: string, html: string): string => {
  const paragraphs = paragraphsIn(html)
  return `<h2>Edit the text</h2>
    <form class="block" method="post" action="${escape(action)}">
    ${paragraphs
      .map(
        (paragraph, i) =>
          `<input type="hidden" name="was-${i}" value="${escape(paragraph.text)}"><textarea name="text-${i}" rows="${Math.min(6, 1 + Math.floor(paragraph.text.length / 90))}" aria-label="Paragraph ${i + 1}">\n${escape(paragraph.text)}</textarea>`,
      )
      .join('')}
    <label>A new paragraph at the end <textarea name="added" rows="2"></textarea></label>
    <input type="hidden" name="paragraphs" value="${paragraphs.length}">
    <button>keep the page so</button></form>`
}

/** Asked before an item is deleted, since nothing here brings it back. */
export const removeScreen = (course: Course, item: CourseItem): string => {
  const base = `/courses/${course.id}/items/${item.id}`
  const count =
    item.html === null
      ? 0
      : (
          paragraphsIn(item.html)
            .map(({ text }) => text)
            .join(' ')
            .match(/\S+/g) ?? []
        ).length
  return page(
    `Delete ${item.name}`,
    `<h1>Delete “${escape(item.name)}”?</h1>
    <p>It is ${aKind(item.kind)}${count > 0 ? ` of ${count} words` : ''}${item.studentWork ? ', and students have work in it' : ''}. It is gone for good: nothing here brings it back.</p>
    <p>${button(`${base}/remove`, 'delete it for good')}<a href="${escape(base)}">keep it</a></p>`,
  )
}

/** Nothing was written, and what was typed is not lost. */
export const changedMeanwhileScreen = (
  base: string,
  typed: readonly { index: number; text: string }[],
): string =>
  page(
    'Not kept',
    `<h1>The page was changed meanwhile</h1>
    <p>Nothing was written, since what you began from is no longer what it says. What you typed is here to be copied; <a href="${escape(base)}">load the page again</a> and put it in its place.</p>
    ${typed.map(({ index, text }) => `<textarea rows="4" aria-label="What you typed in paragraph ${index + 1}" readonly>\n${escape(text)}</textarea>`).join('')}`,
  )

/** A page as it is read; where it speaks to its reader by name, as a made-up student reads it. */
const asRead = (html: string): string =>
  `${html.includes(readerName) ? '<p class="words">As a student by the name of Linnea reads it:</p>' : ''}<div class="page">${safeHtml(readBy(html, 'Linnea'))}</div>`

export const itemScreen = (
  course: Course,
  item: CourseItem,
  module: CourseModule | null,
): string => {
  const base = `/courses/${course.id}/items/${item.id}`
  const index = (module?.children ?? course.stray).findIndex((child) => child.id === item.id)
  return page(
    item.name,
    `<p><a href="/courses/${escape(course.id)}">${escape(course.name)}</a>${module ? ` · ${escape(module.name)}` : ''}</p>
    <h1>${escape(item.name)}</h1>
    <div class="words">${escape(aKind(item.kind).replace('a', 'A'))}, ${words(course, item)}${dated(course, item)}. ${showing(base, item)}${button(`${base}/duplicate`, 'duplicate it')}${movingUp(base, index)}${button(`${base}/hand-in`, 'a student hands in')}<a href="${escape(`${base}/remove`)}">delete it</a></div>
    <form class="block" method="post" action="${base}/rename"><label>Name <input name="name" size="50" value="${escape(item.name)}"></label> <button>rename</button></form>
    <form class="block" method="post" action="${base}/due"><label>Due <input name="due" type="date" value="${item.dueAt ? day(course, item.dueAt) : ''}"></label> <button>set</button></form>
    ${item.html === null ? '<div class="page"><p class="words">It has no page.</p></div>' : asRead(item.html)}
    ${questionsOf(course, item)}
    ${fileOf(course, item)}
    ${item.html === null ? '' : textEditor(`${base}/text`, item.html)}`,
  )
}
