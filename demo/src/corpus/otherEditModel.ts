import { type CourseItem, itemsIn } from '@wickerframe/core'
import { pick } from '../random.ts'
import type { EditedCourse } from './editedCourse.ts'
import type { CourseEdit } from './editModel.ts'

const spelled = [
  'zero',
  'one',
  'two',
  'three',
  'four',
  'five',
  'six',
  'seven',
  'eight',
  'nine',
  'ten',
  'eleven',
  'twelve',
  'thirteen',
  'fourteen',
  'fifteen',
  'sixteen',
]
const roman = [
  '',
  'I',
  'II',
  'III',
  'IV',
  'V',
  'VI',
  'VII',
  'VIII',
  'IX',
  'X',
  'XI',
  'XII',
  'XIII',
  'XIV',
  'XV',
  'XVI',
]
const lastPiece = (name: string): string => name.split(/ · |: | – /).at(-1) ?? name
const german: Readonly<Record<string, string>> = {
  week: 'Woche',
  overview: 'Überblick',
  reading: 'Lektüre',
  assignment: 'Aufgabe',
  discussion: 'Gespräch',
  checklist: 'Liste',
  quiz: 'Quiz',
  notes: 'Mitschrift',
  welcome: 'Willkommen',
}

const somewhere = <T>(list: readonly T[], random: () => number): T | null =>
  list[Math.floor(random() * list.length)] ?? null
const moduleNameTold = (edited: EditedCourse, place: string) => {
  edited.tell('module-name', place)
  for (const rule of ['number-sequence', 'week-dates', 'marker-left-over'])
    edited.either(rule, place)
}
const itemNameTold = (edited: EditedCourse, place: string) => {
  if (edited.partAt(place)?.definition.may.rename) edited.either('item-name', place)
  else edited.tell('item-name', place)
  for (const rule of ['number-sequence', 'name-clash', 'marker-left-over'])
    edited.either(rule, place)
}

const themed: CourseEdit = (edited, random) => {
  const one = somewhere(edited.weekModules, random)
  if (!one) return
  const topic = lastPiece(one.module.name)
  const ways = [
    `${topic} (week ${one.week})`,
    `Leg ${one.week}: ${topic}`,
    `Week ${spelled[one.week] ?? one.week} – ${topic}`,
    `${roman[one.week] ?? one.week}. ${topic}`,
    `week${one.week}_${topic.toLowerCase().replace(/\s+/g, '_')}`,
    topic,
  ]
  one.module.name = pick(random, ways)
  moduleNameTold(edited, one.place)
}
const slipOfTheFinger: CourseEdit = (edited, random) => {
  const one = somewhere(edited.weekItems, random)
  if (!one || one.item.name.length < 8) return
  const letters = [...one.item.name]
  const at = 2 + Math.floor(random() * (letters.length - 4))
  const [a = '', b = ''] = [letters[at], letters[at + 1]]
  if (a === b || !/\p{L}/u.test(a) || !/\p{L}/u.test(b)) return
  letters.splice(at, 2, b, a)
  one.item.name = letters.join('')
  // Within a free topic it is no departure; elsewhere it is.
  edited.either('item-name', one.place)
  for (const rule of ['name-clash', 'number-sequence']) edited.either(rule, one.place)
}
const inGerman: CourseEdit = (edited, random) => {
  const one = somewhere(edited.weekItems, random)
  if (!one) return
  const name = one.item.name.replace(/\p{L}+/gu, (word) => german[word.toLowerCase()] ?? word)
  if (name === one.item.name) return
  one.item.name = name
  itemNameTold(edited, one.place)
}
const namedByTopic: CourseEdit = (edited, random) => {
  const one = somewhere(
    edited.weekItems.filter(({ item }) => / · |: /.test(item.name)),
    random,
  )
  if (!one) return
  one.item.name = `${lastPiece(one.item.name)}${random() < 0.5 ? `, ${one.item.kind}` : ` – ${one.item.kind} ${/\d+(?=\D*:)/.exec(one.item.name)?.[0] ?? ''}`}`
  itemNameTold(edited, one.place)
}
const dropOptional: CourseEdit = (edited, random) => {
  const one = somewhere(
    edited.weekItems.filter(
      ({ part }) => part.strength === 'may' || part.definition.may.remove === true,
    ),
    random,
  )
  if (!one) return
  for (const other of edited.weekItems.filter(({ part }) => part.key === one.part.key)) {
    if (random() < 0.3 || other === one) {
      edited.remove(other.item)
      edited.forget(other.place)
      if (other.part.strength !== 'may') edited.tell('item-missing', other.place)
    }
  }
}
const dropRequired: CourseEdit = (edited, random) => {
  const one = somewhere(
    edited.weekItems.filter(
      ({ part, item }) =>
        part.strength !== 'may' &&
        part.definition.may.remove !== true &&
        item.kind !== 'discussion',
    ),
    random,
  )
  if (!one) return
  edited.remove(one.item)
  edited.forget(one.place)
  edited.tell('item-missing', one.place)
  edited.either('twin-page', one.place)
}
const dropModule: CourseEdit = (edited, random) => {
  const one = somewhere(edited.weekModules, random)
  if (!one) return
  for (const item of itemsIn(one.module)) {
    const place = edited.placeOf(item.id)
    edited.remove(item)
    if (place !== null) edited.forget(place)
  }
  edited.course.modules = edited.course.modules.filter((module) => module !== one.module)
  edited.unpair(one.module.id)
  edited.forget(one.place)
  edited.tell('module-missing', one.place)
}
const shuffle: CourseEdit = (edited, random) => {
  const one = somewhere(edited.weekModules, random)
  if (!one) return
  const { children } = one.module
  for (let i = children.length - 1; i > 0; i--) {
    const j = Math.floor(random() * (i + 1))
    const [a, b] = [children[i], children[j]]
    if (a && b) [children[i], children[j]] = [b, a]
  }
  for (const item of children)
    for (const rule of ['out-of-order', 'last-in-module'])
      edited.either(rule, edited.placeOf(item.id) ?? item.id)
}
const gatherInResources: CourseEdit = (edited, random) => {
  const key = somewhere(edited.weekItems, random)?.part.key
  const target = edited.course.modules.at(-2)
  if (key === undefined || !target || edited.placeOf(target.id) === null) return
  for (const one of edited.weekItems.filter(({ part }) => part.key === key).slice(0, 4)) {
    one.module.children = itemsIn(one.module).filter((item) => item !== one.item)
    target.children.push(one.item)
    for (const rule of [
      'due-outside-module',
      'work-list-complete',
      'item-missing',
      'out-of-order',
      'last-in-module',
    ])
      edited.either(rule, one.place)
  }
}
const takeAlong: CourseEdit = (edited, random) => {
  const one = somewhere(edited.weekItems, random)
  const target = somewhere(
    edited.weekModules.filter(({ module }) => module !== one?.module),
    random,
  )
  if (!one || !target) return
  const copy: CourseItem = { ...structuredClone(one.item), id: edited.newId(), url: null }
  delete copy.recordedAs
  target.module.children.push(copy)
  for (const rule of [
    'duplicate-part',
    'copy-left-over',
    'number-sequence',
    'name-clash',
    'due-outside-module',
    'item-name',
    'link-dead',
    'submission-type-unset',
    'other-week-date',
    'twin-page',
  ])
    edited.either(rule, copy.id)
  for (const item of itemsIn(target.module))
    for (const rule of ['last-in-module', 'work-list-complete'])
      edited.either(rule, edited.placeOf(item.id) ?? item.id)
  edited.either('name-clash', one.place)
}
const newPageFromLast: CourseEdit = (edited, random) => {
  const one = somewhere(edited.weekModules, random)
  const like = one && itemsIn(one.module)[0]
  if (!one || !like) return
  const id = edited.newId()
  one.module.children.unshift({
    ...like,
    id,
    kind: 'page',
    url: null,
    points: null,
    dueAt: null,
    category: null,
    target: null,
    name: pick(random, ['Field trip', 'How last class did it', 'Photographs']),
    html: '<h2>Field trip</h2><p>Bus leaves on 11 November 2025 at seven. <a href="https://kestrelsound.example/trips">Details of the trip</a></p>',
    recordedAs: undefined,
    work: undefined,
    rubric: undefined,
  })
  edited.tell('other-term-date', id)
  edited.either('name-clash', id)
}
const cutSentence: CourseEdit = (edited, random) => {
  const one = somewhere(
    edited.weekItems.filter(
      ({ item, part }) =>
        item.html !== null && part.blocks.some((block) => block.kind === 'fixed-text'),
    ),
    random,
  )
  const block = one?.part.blocks.find((candidate) => candidate.kind === 'fixed-text')
  const line = /<(?:p|li)>([^<]{40,})</.exec(block?.html ?? '')?.[1]
  if (!one || !line || !one.item.html?.includes(line)) return
  const half = line.split(' ')
  one.item.html = one.item.html.replace(
    line,
    `${half.slice(0, Math.ceil(half.length / 2)).join(' ')}.`,
  )
  edited.tell('fixed-text-altered', one.place)
}
const ownWords: CourseEdit = (edited, random) => {
  const one = somewhere(
    edited.weekItems.filter(({ item }) =>
      /<p>(?:When did a shortcut|Hand in a written log|Harbour handbook)/.test(item.html ?? ''),
    ),
    random,
  )
  if (!one) return
  one.item.html = (one.item.html ?? '').replace(
    /<p>(?:When did a shortcut|Hand in a written log|Harbour handbook)[^<]*<\/p>/,
    '<p>Read the notices by the slip, talk to whoever has the watch, and put down in your own words what you would have done, and why.</p>',
  )
}
const toLink: CourseEdit = (edited, random) => {
  const one = somewhere(
    edited.weekItems.filter(({ item, part }) => item.kind === 'page' && part.kind === 'page'),
    random,
  )
  if (
    !one ||
    one.part.definition.kind === 'module' ||
    one.part.definition.acceptsInstead.length > 0
  )
    return
  one.item.kind = 'web-link'
  edited.tell('wrong-kind', one.place)
  for (const rule of ['item-missing', 'work-list-complete']) edited.either(rule, one.place)
}
const hideItem: CourseEdit = (edited, random) => {
  const one = somewhere(
    edited.weekItems.filter(
      ({ part, item, module }) =>
        part.strength === 'must' &&
        part.audience === 'students' &&
        item.published &&
        module.published,
    ),
    random,
  )
  const module = one && edited.placeOf(one.module.id)
  if (!one || !module) return
  one.item.published = false
  edited.tell('must-part-hidden', module)
}
const dueTooLate: CourseEdit = (edited, random) => {
  const one = somewhere(
    edited.weekItems.filter(
      ({ item, part }) => part.dueAt !== null && item.dueAt !== null && item.kind === part.kind,
    ),
    random,
  )
  if (!one) return
  one.item.dueAt = '2027-03-01T12:00:00Z'
  for (const rule of [
    'due-outside-term',
    'other-term-date',
    'due-outside-module',
    'availability-window',
  ])
    edited.either(rule, one.place)
  edited.truth.findings.add(`due ${one.place}`)
}
const typedAnew: CourseEdit = (edited, random) => {
  const one = somewhere(
    edited.weekItems.filter(
      ({ item, part }) => item.kind === 'page' && item.html !== null && part.blocks.length > 0,
    ),
    random,
  )
  if (!one) return
  const at = one.module.children.indexOf(one.item)
  const html = (one.item.html ?? '')
    .replace(/ data-wicker-[a-z]+="[^"]*"/g, '')
    .replace(/<\/?(?:div|section|aside)[^>]*>/g, '')
    .replace(/<p>/g, '<p dir="ltr">')
  const again: CourseItem = {
    ...structuredClone(one.item),
    id: edited.newId(),
    url: `/courses/${edited.course.id}/typed-${edited.newId()}`,
    html,
  }
  delete again.recordedAs
  edited.remove(one.item)
  one.module.children.splice(at, 0, again)
  edited.pair(one.place, again.id)
}

/** How another platform rewrites pages: markers gone, wrappers of its own, entities in place of characters. */
export const otherStrip = (edited: EditedCourse): void => {
  for (const item of edited.items)
    if (item.html !== null)
      item.html = `<div class="page-body">${item.html
        .replace(/ data-wicker-[a-z]+="[^"]*"/g, '')
        .replace(/<div>/g, '<section class="x">')
        .replace(/<\/div>/g, '</section>')
        .replace(/’/g, '&rsquo;')
        .replace(/<p>/g, '<p>\n  ')
        .replace(/ class="[^"]*"/g, '')}</div>`
}

/** The second edit model, written before the pairing was developed and kept for evaluation. */
export const otherEditModel: readonly (readonly [CourseEdit, number])[] = [
  [themed, 3],
  [slipOfTheFinger, 2],
  [inGerman, 2],
  [namedByTopic, 2],
  [dropOptional, 1.5],
  [dropRequired, 1.5],
  [dropModule, 0.15],
  [shuffle, 0.7],
  [gatherInResources, 0.4],
  [takeAlong, 0.8],
  [newPageFromLast, 1],
  [cutSentence, 1.5],
  [ownWords, 2],
  [toLink, 0.6],
  [hideItem, 0.7],
  [dueTooLate, 0.7],
  [typedAnew, 1.2],
]
