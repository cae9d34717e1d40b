import { itemsIn, type CourseItem, type CourseModule } from '@wickerframe/core'
import { pick } from '../random.ts'
import type { EditedCourse } from './editedCourse.ts'
import type { CourseEdit } from './editModel.ts'

/*
 * Edits by other assumptions than the two models before: slips of one digit, copies over copies, weeks and pages merged and
 * split, answers of a few words, what is added beside. Each says exactly what it makes wrong; nearly nothing is left open.
 */

/** A module of the weeks or units, with the number it is known by. */
interface Stretch {
  module: CourseModule
  place: string
  number: number
}
const stretches = (edited: EditedCourse): Stretch[] =>
  edited.weekModules.map(({ module, place, part, week }) => ({
    module,
    place,
    number: Number(part.values.unit ?? week),
  }))
/** Modules that no edit has renamed or emptied: one thing goes wrong with each. */
const untouched = (edited: EditedCourse): Stretch[] =>
  stretches(edited).filter(
    ({ module, place }) => edited.partAt(place)?.name === module.name && !edited.isTouched(place),
  )
/** Those of which no item was changed either. */
const whole = (edited: EditedCourse): Stretch[] =>
  untouched(edited).filter(({ place }) =>
    edited.placesIn(place).every((inner) => !edited.isTouched(inner)),
  )
/** A name with its first number put in place of another, as wide as it was. */
const withNumber = (name: string, from: number, to: number): string =>
  name.replace(/\d+/, (digits) =>
    Number(digits) === from ? String(to).padStart(digits.length, '0') : digits,
  )

const oneDigitWrong: CourseEdit = (edited, random) => {
  const all = untouched(edited)
  const chosen = all[Math.floor(random() * all.length)]
  if (!chosen) return
  const last = Math.max(...stretches(edited).map(({ number }) => number))
  chosen.module.name = withNumber(
    chosen.module.name,
    chosen.number,
    chosen.number === last ? chosen.number - 1 : chosen.number + 1,
  )
  edited.touch(chosen.place)
  edited.tell('number-sequence', chosen.place)
  // Slips beside each other look like numbers that were swapped.
  edited.truth.sameAs.set(`module-name ${chosen.place}`, `number-sequence ${chosen.place}`)
}
const twoSwapped: CourseEdit = (edited, random) => {
  const all = untouched(edited)
  const i = Math.floor(random() * (all.length - 1))
  const [a, b] = [all[i], all[i + 1]]
  if (!a || !b) return
  a.module.name = withNumber(a.module.name, a.number, b.number)
  b.module.name = withNumber(b.module.name, b.number, a.number)
  for (const { place } of [a, b]) {
    edited.touch(place)
    edited.tell('module-name', place)
    edited.truth.sameAs.set(`number-sequence ${place}`, `module-name ${place}`)
  }
}
const itemDigitWrong: CourseEdit = (edited, random) => {
  const all = edited.weekItems.filter(
    ({ item, part, place }) => item.name === part.name && !edited.isTouched(place),
  )
  const chosen = all[Math.floor(random() * all.length)]
  const number = Number(/\d+/.exec(chosen?.item.name ?? '')?.[0])
  if (!chosen || Number.isNaN(number)) return
  chosen.item.name = withNumber(chosen.item.name, number, number + 1)
  edited.touch(chosen.place)
  edited.tell('item-name', chosen.place)
}
const lastYearsDates: CourseEdit = (edited, random) => {
  const all = untouched(edited).filter(({ module }) => / \d+ – /.test(module.name))
  const chosen = all[Math.floor(random() * all.length)]
  if (!chosen) return
  chosen.module.name = chosen.module.name.replace(
    /(\p{L}+) (\d+) – (\p{L}+) (\d+)/u,
    (_, from: string, first: string, until: string, last: string) =>
      `${from} ${Math.min(28, Number(first) + 1)} – ${until} ${Math.min(28, Number(last) + 1)}`,
  )
  if (edited.partAt(chosen.place)?.name === chosen.module.name) return
  edited.touch(chosen.place)
  edited.tell('week-dates', chosen.place)
}
const mergeTwo: CourseEdit = (edited, random) => {
  const all = whole(edited)
  const i = Math.floor(random() * (all.length - 1))
  const [first, second] = [all[i], all[i + 1]]
  if (!first || !second) return
  first.module.children.push(...second.module.children)
  if (random() < 0.5) first.module.name = `${first.number} and ${second.number}: taken together`
  edited.removeModule(second.module)
  edited.touch(first.place)
  edited.touch(second.place)
  edited.merged(first.place, second.place, first.module.id)
}
const moduleGone: CourseEdit = (edited, random) => {
  const all = whole(edited)
  const chosen = all[Math.floor(random() * all.length)]
  if (!chosen) return
  for (const item of itemsIn(chosen.module)) {
    const place = edited.placeOf(item.id)
    edited.remove(item)
    if (place !== null) edited.forget(place)
  }
  edited.removeModule(chosen.module)
  edited.unpair(chosen.module.id)
  edited.touch(chosen.place)
  edited.tell('module-missing', chosen.place)
}
const itemGone: CourseEdit = (edited, random) => {
  const all = edited.weekItems.filter(
    ({ part, place }) =>
      part.strength === 'must' && part.definition.may.remove !== true && !edited.isTouched(place),
  )
  const chosen = all[Math.floor(random() * all.length)]
  if (!chosen) return
  edited.remove(chosen.item)
  edited.forget(chosen.place)
  edited.touch(chosen.place)
  edited.tell('item-missing', chosen.place)
}
/** One overview over another: a week reads another week's text. */
const copyOverCopy: CourseEdit = (edited, random) => {
  const pages = edited.weekItems.filter(
    ({ item, part, place }) =>
      item.html !== null &&
      part.blocks.filter(({ kind }) => kind === 'fill-in').length > 0 &&
      !edited.isTouched(place) &&
      // Answers that are word for word the same in every week are nobody's text.
      item.html.includes(edited.signature(place)),
  )
  const from = pages[Math.floor(random() * pages.length)]
  const to = pages.find(({ part, place }) => part.key === from?.part.key && place !== from.place)
  if (!from || !to) return
  to.item.html = from.item.html
  const isNamedSo = random() < 0.5
  if (isNamedSo) to.item.name = from.item.name
  edited.touch(from.place)
  edited.touch(to.place)
  // Under its own name, a page without a list of its week's work does not say that it is a copy.
  if (isNamedSo || from.part.blocks.some(({ kind }) => kind === 'work-list'))
    edited.tell('twin-page', to.place)
}
const twoPages: CourseEdit = (edited, random) => {
  const pages = edited.weekItems.filter(
    ({ item, place }) => (item.html?.match(/<h3>/g)?.length ?? 0) > 1 && !edited.isTouched(place),
  )
  const chosen = pages[Math.floor(random() * pages.length)]
  const html = chosen?.item.html ?? ''
  const at = Math.max(html.lastIndexOf('<div data-wicker-block'), 0) || html.lastIndexOf('<h3>')
  if (!chosen || at <= 0) return
  const rest: CourseItem = {
    ...structuredClone(chosen.item),
    id: edited.newId(),
    url: `/courses/${edited.course.id}/rest-${edited.newId()}`,
    name: pick(random, ['More of it', 'The rest', 'Read on']),
    html: html.slice(at),
  }
  delete rest.recordedAs
  chosen.item.html = html.slice(0, at)
  chosen.module.children.splice(chosen.module.children.indexOf(chosen.item) + 1, 0, rest)
  edited.touch(chosen.place)
}
const ownFrontPage: CourseEdit = (edited) => {
  const home = edited.items.find(({ id }) => id === edited.course.homePage)
  const like = edited.items.find(({ kind }) => kind === 'page')
  if (!home || !like || edited.isTouched('home')) return
  const front: CourseItem = {
    ...structuredClone(like),
    id: edited.newId(),
    url: `/courses/${edited.course.id}/front`,
    name: 'The door to everything',
    html: '<h2>Come in</h2><p>Here is where we keep what we make, and where you find each other.</p>',
  }
  delete front.recordedAs
  edited.course.stray.push(front)
  edited.course.homePage = front.id
  edited.touch('home')
  edited.tell('home-page-set', front.id)
}
const quizUnlisted: CourseEdit = (edited, random) => {
  // A list that was moved speaks of the module it belongs in.
  const lists = edited.weekItems.filter(
    ({ part, place, module }) =>
      part.blocks.some(({ kind }) => kind === 'work-list') &&
      edited.placesIn(edited.placeOf(module.id) ?? '').includes(place) &&
      !edited.isTouched(place),
  )
  const chosen = lists[Math.floor(random() * lists.length)]
  const like =
    chosen &&
    itemsIn(chosen.module).find(
      ({ id, dueAt }) => dueAt !== null && !edited.isTouched(edited.placeOf(id) ?? id),
    )
  if (!chosen || !like) return
  const quiz: CourseItem = {
    ...structuredClone(like),
    id: edited.newId(),
    url: `/courses/${edited.course.id}/quiz-${edited.newId()}`,
    kind: 'assessment',
    name: `A few questions ${edited.newId().slice(-2)}`,
    category: null,
    points: null,
    html: null,
  }
  delete quiz.recordedAs
  chosen.module.children.splice(1, 0, quiz)
  edited.touch(chosen.place)
  edited.tell('work-list-complete', chosen.place)
}
const dueNextYear: CourseEdit = (edited, random) => {
  const all = edited.weekItems.filter(
    ({ item, part, place }) =>
      part.dueAt !== null && item.dueAt !== null && !edited.isTouched(place),
  )
  const chosen = all[Math.floor(random() * all.length)]
  if (!chosen) return
  chosen.item.dueAt = '2027-09-01T12:00:00Z'
  edited.touch(chosen.place)
  edited.truth.findings.add(`due ${chosen.place}`)
}

/** Lets each answer say of which place it is: an instructor writes something else every week. */
export const tellAnswersApart = (edited: EditedCourse): void => {
  for (const item of edited.items) {
    const place = edited.placeOf(item.id)
    if (place !== null && item.html !== null)
      item.html = item.html.replace(
        /(<p>[^<]{60,})<\/p>/,
        (_, answer: string) => `${answer} This is ${edited.signature(place)}.</p>`,
      )
  }
}

/* What harms nothing. */

const shortAnswers: CourseEdit = (edited, random) => {
  const pages = edited.weekItems.filter(
    ({ item, place }) => /<p>[^<]{60,}<\/p>/.test(item.html ?? '') && !edited.isTouched(place),
  )
  const chosen = pages[Math.floor(random() * pages.length)]
  const place = chosen && edited.placeOf(chosen.item.id)
  if (!chosen || place === null || place === undefined) return
  if (!chosen.item.html?.includes(edited.signature(place))) return
  chosen.item.html = chosen.item.html.replace(
    /<p>[^<]{60,}<\/p>/,
    `<p>${pick(random, ['As agreed.', 'See the sketch.', 'Bring your own tools.'])}</p>`,
  )
  edited.touch(place)
  const asksForMore = chosen.part.blocks.some(
    ({ definition }) => definition.kind === 'fill-in' && (definition.minWords ?? 0) > 4,
  )
  if (asksForMore) edited.tell('fill-in-constraint', place)
}
const pageBeside: CourseEdit = (edited, random) => {
  const all = stretches(edited)
  const chosen = all[Math.floor(random() * all.length)]
  const like = chosen && itemsIn(chosen.module)[0]
  if (!chosen || !like) return
  const beside: CourseItem = {
    ...structuredClone(like),
    id: edited.newId(),
    url: `/courses/${edited.course.id}/beside-${edited.newId()}`,
    kind: 'page',
    name: `From the workshop ${edited.newId().slice(-2)}`,
    dueAt: null,
    points: null,
    category: null,
    html: '<h2>From the workshop</h2><p>Three of you asked how the hinge was made; here is how, step by step.</p>',
  }
  delete beside.recordedAs
  chosen.module.children.splice(1, 0, beside)
}
const otherTopic: CourseEdit = (edited, random) => {
  const all = untouched(edited).filter(({ module }) =>
    / · [^·]+ · | \/ [^/]+ \/ /.test(module.name),
  )
  const chosen = all[Math.floor(random() * all.length)]
  const topic = chosen && edited.partAt(chosen.place)?.values.topic
  if (!chosen || typeof topic !== 'string') return
  chosen.module.name = chosen.module.name.replace(
    topic,
    pick(random, ['What the hands know', '3 ways to fail well', 'Old and new']),
  )
  edited.touch(chosen.place)
}
const rewritten: CourseEdit = (edited, random) => {
  const item = pick(random, edited.items)
  if (item.html !== null)
    item.html = item.html.replace(/<(p|li|h[1-6])>/g, '<$1 lang="en">').replace(/’/g, '&#8217;')
}

/** The third edit model: strict, and of another college. */
export const thirdEditModel: readonly (readonly [CourseEdit, number])[] = [
  [oneDigitWrong, 1],
  [twoSwapped, 0.6],
  [itemDigitWrong, 1],
  [lastYearsDates, 1],
  [mergeTwo, 0.5],
  [moduleGone, 0.3],
  [itemGone, 1],
  [copyOverCopy, 0.7],
  [twoPages, 0.7],
  [ownFrontPage, 0.3],
  [quizUnlisted, 0.8],
  [dueNextYear, 0.8],
  [shortAnswers, 2],
  [pageBeside, 1.5],
  [otherTopic, 1],
  [rewritten, 2],
]
