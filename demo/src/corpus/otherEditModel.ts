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
  const chosen = somewhere(edited.weekModules, random)
  if (!chosen) return
  const topic = lastPiece(chosen.module.name)
  const ways = [
    `${topic} (week ${chosen.week})`,
    `Leg ${chosen.week}: ${topic}`,
    `Week ${spelled[chosen.week] ?? chosen.week} – ${topic}`,
    `${roman[chosen.week] ?? chosen.week}. ${topic}`,
    `week${chosen.week}_${topic.toLowerCase().replace(/\s+/g, '_')}`,
    topic,
  ]
  chosen.module.name = pick(random, ways)
  moduleNameTold(edited, chosen.place)
}
const slipOfTheFinger: CourseEdit = (edited, random) => {
  const chosen = somewhere(edited.weekItems, random)
  if (!chosen || chosen.item.name.length < 8) return
  const letters = [...chosen.item.name]
  const at = 2 + Math.floor(random() * (letters.length - 4))
  const [a = '', b = ''] = [letters[at], letters[at + 1]]
  if (a === b || !/\p{L}/u.test(a) || !/\p{L}/u.test(b)) return
  letters.splice(at, 2, b, a)
  chosen.item.name = letters.join('')
  // Within a free topic it is no departure; elsewhere it is.
  edited.either('item-name', chosen.place)
  for (const rule of ['name-clash', 'number-sequence']) edited.either(rule, chosen.place)
}
const inGerman: CourseEdit = (edited, random) => {
  const chosen = somewhere(edited.weekItems, random)
  if (!chosen) return
  const name = chosen.item.name.replace(/\p{L}+/gu, (word) => german[word.toLowerCase()] ?? word)
  if (name === chosen.item.name) return
  chosen.item.name = name
  itemNameTold(edited, chosen.place)
}
const namedByTopic: CourseEdit = (edited, random) => {
  const chosen = somewhere(
    edited.weekItems.filter(({ item }) => / · |: /.test(item.name)),
    random,
  )
  if (!chosen) return
  chosen.item.name = `${lastPiece(chosen.item.name)}${random() < 0.5 ? `, ${chosen.item.kind}` : ` – ${chosen.item.kind} ${/\d+(?=\D*:)/.exec(chosen.item.name)?.[0] ?? ''}`}`
  itemNameTold(edited, chosen.place)
}
const dropOptional: CourseEdit = (edited, random) => {
  const chosen = somewhere(
    edited.weekItems.filter(
      ({ part }) => part.strength === 'may' || part.definition.may.remove === true,
    ),
    random,
  )
  if (!chosen) return
  for (const other of edited.weekItems.filter(({ part }) => part.key === chosen.part.key)) {
    if (random() < 0.3 || other === chosen) {
      edited.remove(other.item)
      edited.forget(other.place)
      if (other.part.strength !== 'may') edited.tell('item-missing', other.place)
    }
  }
}
const dropRequired: CourseEdit = (edited, random) => {
  const chosen = somewhere(
    edited.weekItems.filter(
      ({ part, item }) =>
        part.strength !== 'may' &&
        part.definition.may.remove !== true &&
        item.kind !== 'discussion',
    ),
    random,
  )
  if (!chosen) return
  edited.remove(chosen.item)
  edited.forget(chosen.place)
  edited.tell('item-missing', chosen.place)
  edited.either('twin-page', chosen.place)
}
const dropModule: CourseEdit = (edited, random) => {
  const chosen = somewhere(edited.weekModules, random)
  if (!chosen) return
  for (const item of itemsIn(chosen.module)) {
    const place = edited.placeOf(item.id)
    edited.remove(item)
    if (place !== null) edited.forget(place)
  }
  edited.course.modules = edited.course.modules.filter((module) => module !== chosen.module)
  edited.unpair(chosen.module.id)
  edited.forget(chosen.place)
  edited.tell('module-missing', chosen.place)
}
const shuffle: CourseEdit = (edited, random) => {
  const chosen = somewhere(edited.weekModules, random)
  if (!chosen) return
  const { children } = chosen.module
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
  // Where the template has no module of resources, a week takes them, and its list and its last item notice.
  for (const { id } of itemsIn(target))
    for (const rule of ['last-in-module', 'work-list-complete', 'out-of-order'])
      edited.either(rule, edited.placeOf(id) ?? id)
  for (const chosen of edited.weekItems.filter(({ part }) => part.key === key).slice(0, 4)) {
    chosen.module.children = itemsIn(chosen.module).filter((item) => item !== chosen.item)
    target.children.push(chosen.item)
    for (const rule of [
      'due-outside-module',
      'work-list-complete',
      'item-missing',
      'out-of-order',
      'last-in-module',
    ])
      edited.either(rule, chosen.place)
  }
}
const takeAlong: CourseEdit = (edited, random) => {
  const chosen = somewhere(edited.weekItems, random)
  const target = somewhere(
    edited.weekModules.filter(({ module }) => module !== chosen?.module),
    random,
  )
  if (!chosen || !target) return
  const copy: CourseItem = { ...structuredClone(chosen.item), id: edited.newId(), url: null }
  delete copy.recordedAs
  target.module.children.push(copy)
  for (const rule of [
    'duplicate-part',
    'copy-left-over',
    'number-sequence',
    'name-clash',
    'due-outside-module',
    // A copy takes a due date along that was set too late before.
    'due-outside-term',
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
  edited.either('name-clash', chosen.place)
}
const newPageFromLast: CourseEdit = (edited, random) => {
  const chosen = somewhere(edited.weekModules, random)
  const like = chosen && itemsIn(chosen.module)[0]
  if (!chosen || !like) return
  const id = edited.newId()
  chosen.module.children.unshift({
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
  const chosen = somewhere(
    edited.weekItems.filter(
      ({ item, part }) =>
        item.html !== null && part.blocks.some((block) => block.kind === 'fixed-text'),
    ),
    random,
  )
  const block = chosen?.part.blocks.find((candidate) => candidate.kind === 'fixed-text')
  const line = /<(?:p|li)>([^<]{40,})</.exec(block?.html ?? '')?.[1]
  if (!chosen || !line || !chosen.item.html?.includes(line)) return
  const half = line.split(' ')
  chosen.item.html = chosen.item.html.replace(
    line,
    `${half.slice(0, Math.ceil(half.length / 2)).join(' ')}.`,
  )
  edited.tell('fixed-text-altered', chosen.place)
}
const ownWords: CourseEdit = (edited, random) => {
  const chosen = somewhere(
    edited.weekItems.filter(({ item }) =>
      /<p>(?:When did a shortcut|Hand in a written log|Harbour handbook)/.test(item.html ?? ''),
    ),
    random,
  )
  if (!chosen) return
  chosen.item.html = (chosen.item.html ?? '').replace(
    /<p>(?:When did a shortcut|Hand in a written log|Harbour handbook)[^<]*<\/p>/,
    '<p>Read the notices by the slip, talk to whoever has the watch, and put down in your own words what you would have done, and why.</p>',
  )
}
const toLink: CourseEdit = (edited, random) => {
  const chosen = somewhere(
    edited.weekItems.filter(({ item, part }) => item.kind === 'page' && part.kind === 'page'),
    random,
  )
  if (
    !chosen ||
    chosen.part.definition.kind === 'module' ||
    chosen.part.definition.acceptsInstead.length > 0
  )
    return
  chosen.item.kind = 'web-link'
  edited.tell('wrong-kind', chosen.place)
  for (const rule of ['item-missing', 'work-list-complete']) edited.either(rule, chosen.place)
}
const hideItem: CourseEdit = (edited, random) => {
  const chosen = somewhere(
    edited.weekItems.filter(
      ({ part, item, module }) =>
        part.strength === 'must' &&
        part.audience === 'students' &&
        item.published &&
        module.published,
    ),
    random,
  )
  const module = chosen && edited.placeOf(chosen.module.id)
  if (!chosen || !module) return
  chosen.item.published = false
  edited.tell('must-part-hidden', module)
}
const dueTooLate: CourseEdit = (edited, random) => {
  const chosen = somewhere(
    edited.weekItems.filter(
      ({ item, part }) => part.dueAt !== null && item.dueAt !== null && item.kind === part.kind,
    ),
    random,
  )
  if (!chosen) return
  chosen.item.dueAt = '2027-03-01T12:00:00Z'
  for (const rule of [
    'due-outside-term',
    'other-term-date',
    'due-outside-module',
    'availability-window',
  ])
    edited.either(rule, chosen.place)
  edited.truth.findings.add(`due ${chosen.place}`)
}
const typedAnew: CourseEdit = (edited, random) => {
  const chosen = somewhere(
    edited.weekItems.filter(
      ({ item, part }) => item.kind === 'page' && item.html !== null && part.blocks.length > 0,
    ),
    random,
  )
  if (!chosen) return
  const at = chosen.module.children.indexOf(chosen.item)
  const html = (chosen.item.html ?? '')
    .replace(/ data-wicker-[a-z]+="[^"]*"/g, '')
    .replace(/<\/?(?:div|section|aside)[^>]*>/g, '')
    .replace(/<p>/g, '<p dir="ltr">')
  const again: CourseItem = {
    ...structuredClone(chosen.item),
    id: edited.newId(),
    url: `/courses/${edited.course.id}/typed-${edited.newId()}`,
    html,
  }
  delete again.recordedAs
  edited.remove(chosen.item)
  chosen.module.children.splice(at, 0, again)
  edited.pair(chosen.place, again.id)
}

/** How another platform rewrites pages: markers gone, wrappers of its own, entities in place of characters. */
export const otherStrip = (edited: EditedCourse): void => {
  for (const item of edited.items)
    if (item.html !== null)
      item.html = `<div class="page-body">${item.html
        .replace(/ data-wicker-[a-z]+="[^"]*"/g, '')
        .replace(/<div(?=[ >])/g, '<section')
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
