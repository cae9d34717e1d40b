import { type CourseItem, type CourseModule, itemsIn } from '@wickerframe/core'
import { pick } from '../random.ts'
import type { EditedCourse } from './editedCourse.ts'

type Random = () => number
/** One thing that somebody does to a course. Does nothing where there is nothing to do it to. */
export type CourseEdit = (edited: EditedCourse, random: Random) => void

const topicOf = (name: string): string => name.split(/ · |: /).at(-1) ?? name
const moduleStyles = [
  'wk {n} - {t}',
  'Week {n}: {t}',
  'W{n} {t}',
  'WEEK {n} – {t}',
  'Week {n} ({t})',
  'Mod {n}: {t}',
  '{n}. {t}',
  'Week {n} {t} (new)',
]
const words: Readonly<Record<string, string>> = {
  overview: 'aperçu',
  reading: 'lecture',
  discussion: 'Forum',
  assignment: 'Aufgabe',
  checklist: 'to-do list',
  notes: 'Notizen',
  quiz: 'check',
}

const moduleRenamed = (edited: EditedCourse, module: CourseModule, place: string) => {
  // Of two weeks in one module it is told that they are one; its name is that finding’s.
  if (edited.holdsSeveral(module.id)) edited.either('module-name', place)
  else edited.tell('module-name', place)
  for (const rule of ['marker-left-over', 'number-sequence', 'week-dates'])
    edited.either(rule, place)
}
/** A name in the instructor’s own style. */
const renameModule: CourseEdit = (edited, random) => {
  const weeks = edited.weekModules
  if (weeks.length === 0) return
  const { module, place, week } = pick(random, weeks)
  module.name = pick(random, moduleStyles)
    .replace('{n}', String(week))
    .replace('{t}', topicOf(module.name))
  moduleRenamed(edited, module, place)
}
const renameAllModules: CourseEdit = (edited, random) => {
  const style = pick(random, moduleStyles)
  for (const { module, place, week } of edited.weekModules) {
    module.name = style.replace('{n}', String(week)).replace('{t}', topicOf(module.name))
    moduleRenamed(edited, module, place)
  }
}

const nameTold = (edited: EditedCourse, place: string) => {
  const part = edited.partAt(place)
  // A free name may still not follow the format; what is of another kind is made again, and its name with it.
  const isSurelyTold = !part?.definition.may.rename && !edited.isTold('wrong-kind', place)
  if (isSurelyTold) edited.tell('item-name', place)
  else edited.either('item-name', place)
  for (const rule of ['marker-left-over', 'name-clash', 'number-sequence'])
    edited.either(rule, place)
}
const shorten = (name: string): string =>
  name
    .replace(/Week (\d+)/, 'W$1')
    .replace(/Assignment/, 'Asgmt')
    .replace(/Discussion/, 'Disc')
    .replace(/overview/, 'ovw')
    .replace(/checklist/, 'chklst')
const renameItem: CourseEdit = (edited, random) => {
  const items = edited.weekItems
  if (items.length === 0) return
  const { item, place } = pick(random, items)
  const ways: ((name: string) => string)[] = [
    shorten,
    (name) => name.replace(/\p{L}+/gu, (word) => words[word.toLowerCase()] ?? word),
    (name) => `${topicOf(name)} (${/\d+/.exec(name)?.[0] ?? ''})`,
    (name) => name.toUpperCase(),
    (name) => name.replace(/^[A-Z]{3} \d{3} · /, ''),
  ]
  const name = pick(random, ways)(item.name)
  if (name === item.name) return
  // Capitals alone are no departure: names are read whatever their case.
  const sameLetters = name.toLowerCase() === item.name.toLowerCase()
  item.name = name
  if (sameLetters) edited.either('item-name', place)
  else nameTold(edited, place)
}

const mayGo = (target: {
  part: { strength: string; definition: { may: { remove?: boolean | undefined } } }
}): boolean => target.part.strength === 'may' || target.part.definition.may.remove === true
const deleteAllowed: CourseEdit = (edited, random) => {
  const items = edited.weekItems.filter(mayGo)
  if (items.length === 0) return
  const { item, place, part } = pick(random, items)
  edited.remove(item)
  edited.forget(place)
  // What may go, but is more than a may, is asked about until somebody says “not this week”.
  if (part.strength !== 'may') edited.tell('item-missing', place)
}
const deleteNeeded: CourseEdit = (edited, random) => {
  // Whether an assignment of the same week does a deleted discussion’s job is a question of its own.
  const items = edited.weekItems.filter((item) => !mayGo(item) && item.item.kind !== 'discussion')
  if (items.length === 0) return
  const { item, place } = pick(random, items)
  edited.remove(item)
  edited.forget(place)
  edited.tell('item-missing', place)
  edited.either('twin-page', place)
}

const reorderItem: CourseEdit = (edited, random) => {
  const modules = edited.weekModules.filter(({ module }) => module.children.length > 3)
  if (modules.length === 0) return
  const { module } = pick(random, modules)
  const from = Math.floor(random() * module.children.length)
  const to =
    (from + 2 + Math.floor(random() * (module.children.length - 3))) % module.children.length
  const [item] = module.children.splice(from, 1)
  if (item) module.children.splice(to, 0, item)
  for (const item of itemsIn(module)) {
    const place = edited.placeOf(item.id) ?? item.id
    for (const rule of ['out-of-order', 'last-in-module']) edited.either(rule, place)
  }
}
const pullModuleUp: CourseEdit = (edited, random) => {
  const weeks = edited.weekModules.filter(({ week }) => week > 2)
  if (weeks.length === 0) return
  const { module, place } = pick(random, weeks)
  edited.course.modules = [module, ...edited.course.modules.filter((other) => other !== module)]
  edited.tell('out-of-order', place)
}
const moveElsewhere: CourseEdit = (edited, random) => {
  const items = edited.weekItems
  const modules = edited.weekModules
  if (items.length === 0 || modules.length < 2) return
  const { item, module } = pick(random, items)
  const target = pick(
    random,
    modules.filter((place) => place.module !== module),
  )
  module.children = module.children.filter((child) => child !== item)
  target.module.children.splice(random() < 0.5 ? 0 : target.module.children.length, 0, item)
  for (const item of itemsIn(target.module))
    for (const rule of ['last-in-module', 'work-list-complete', 'out-of-order'])
      edited.either(rule, edited.placeOf(item.id) ?? item.id)
  for (const rule of [
    'due-outside-module',
    'item-missing',
    'other-week-date',
    'published-in-hidden-module',
  ])
    edited.either(rule, edited.placeOf(item.id) ?? item.id)
}

const duplicateAndEdit: CourseEdit = (edited, random) => {
  const items = edited.weekItems
  if (items.length === 0) return
  const { item, module } = pick(random, items)
  const copy: CourseItem = {
    ...structuredClone(item),
    id: edited.newId(),
    url: null,
    name: pick(random, [`${item.name} (copy)`, `Copy of ${item.name}`, `${item.name} (2)`]),
  }
  delete copy.recordedAs
  if (copy.html)
    copy.html = copy.html.replace(
      /<p>(?:This week|We look)[^<]*<\/p>/,
      '<p>Half of this is still to be written anew for the other class.</p>',
    )
  module.children.splice(module.children.indexOf(item) + 1, 0, copy)
  edited.tell('copy-left-over', copy.id)
  for (const rule of [
    'duplicate-part',
    'item-name',
    'name-clash',
    'marker-left-over',
    'practice-counted',
    'sample-activity-left',
    'submission-type-unset',
    'link-dead',
    'filler-text',
  ])
    edited.either(rule, copy.id)
}

const splitPage: CourseEdit = (edited, random) => {
  const pages = edited.weekItems.filter(
    ({ item, part }) =>
      item.kind === 'page' && part.blocks.length > 2 && (item.html ?? '').length > 300,
  )
  if (pages.length === 0) return
  const { item, module, place } = pick(random, pages)
  const pieces = (item.html ?? '').split(/(?=<(?:div|section|aside)\b[^>]*data-wicker-block)/)
  if (pieces.length < 3) return
  const at = Math.ceil(pieces.length / 2)
  const second: CourseItem = {
    ...structuredClone(item),
    id: edited.newId(),
    url: null,
    name: `${item.name}, part 2`,
    html: pieces.slice(at).join(''),
  }
  delete second.recordedAs
  item.html = pieces.slice(0, at).join('')
  module.children.splice(module.children.indexOf(item) + 1, 0, second)
  edited.pair(place, second.id)
  for (const rule of [
    'block-missing',
    'fixed-text-altered',
    'work-list-complete',
    'block-order',
    'fill-in-unfilled',
    'item-name',
    'out-of-order',
  ]) {
    edited.either(rule, place)
    edited.either(rule, second.id)
  }
  for (const rule of ['duplicate-part', 'copy-left-over']) edited.either(rule, second.id)
}

const mergeWeeks: CourseEdit = (edited, random) => {
  const weeks = edited.weekModules
  const i = Math.floor(random() * (weeks.length - 1))
  const [first, second] = [weeks[i], weeks[i + 1]]
  if (!first || !second || second.week !== first.week + 1) return
  for (const item of itemsIn(second.module)) {
    const place = edited.placeOf(item.id) ?? item.id
    for (const rule of [
      'last-in-module',
      'out-of-order',
      'due-outside-module',
      'work-list-complete',
      'item-missing',
    ])
      edited.either(rule, place)
  }
  first.module.children.push(...itemsIn(second.module))
  for (const item of itemsIn(first.module))
    for (const rule of ['last-in-module', 'work-list-complete', 'out-of-order'])
      edited.either(rule, edited.placeOf(item.id) ?? item.id)
  first.module.name = `Weeks ${first.week} and ${second.week}: ${topicOf(first.module.name)}`
  edited.course.modules = edited.course.modules.filter((module) => module !== second.module)
  edited.pair(second.place, first.module.id)
  // What is done to it from now on is told of one of the two.
  edited.pair(first.place, first.module.id)
  // Either of the two weeks may be named as the one that is folded into the other.
  for (const rule of [
    'module-missing',
    'module-name',
    'number-sequence',
    'week-dates',
    'out-of-order',
    'must-part-hidden',
  ]) {
    for (const place of [first.place, second.place]) {
      edited.truth.findings.delete(`${rule} ${place}`)
      edited.either(rule, place)
    }
    edited.truth.sameAs.set(`${rule} ${second.place}`, `${rule} ${first.place}`)
  }
}

const lastTermsPage: CourseEdit = (edited, random) => {
  const weeks = edited.weekModules
  if (weeks.length === 0) return
  const { module } = pick(random, weeks)
  const id = edited.newId()
  const like = itemsIn(module)[0]
  if (!like) return
  module.children.splice(1, 0, {
    ...like,
    id,
    kind: 'page',
    url: null,
    points: null,
    dueAt: null,
    category: null,
    target: null,
    name: pick(random, ['Boat day', 'Visit to the light', 'Guest at the quay']),
    html: '<h3>Boat day</h3><p>We meet on Saturday, September 20, 2025 at the east slip.</p><p>Sign up on <a href="/courses/kc-0907/p-11">last year’s list</a>.</p>',
    recordedAs: undefined,
    work: undefined,
    rubric: undefined,
  })
  edited.tell('other-term-date', id)
  edited.tell('link-other-course', id)
  edited.either('name-clash', id)
}

const retype: CourseEdit = (edited, random) => {
  const items = edited.weekItems.filter(
    ({ item, part }) => item.kind === part.kind && ['discussion', 'assignment'].includes(item.kind),
  )
  if (items.length === 0) return
  const { item, place } = pick(random, items)
  item.kind = item.kind === 'assignment' ? 'discussion' : 'page'
  edited.tell('wrong-kind', place)
  // What is of another kind has no due date, points or name to be judged.
  for (const rule of ['due-missing', 'points-differ', 'item-name'])
    if (edited.truth.findings.delete(`${rule} ${place}`)) edited.either(rule, place)
  for (const rule of [
    'post-before-reading',
    'notification-off',
    'submission-type-unset',
    'due-missing',
    'item-missing',
  ])
    edited.either(rule, place)
}

const hide: CourseEdit = (edited, random) => {
  const weeks = edited.weekModules
  if (weeks.length === 0) return
  const { module, place } = pick(random, weeks)
  module.published = false
  edited.tell('must-part-hidden', place)
  edited.either('out-of-order', place)
}

const rewriteFixed: CourseEdit = (edited, random) => {
  const items = edited.weekItems.filter(
    ({ item, part }) =>
      part.blocks.some((block) => block.kind === 'fixed-text') && item.html !== null,
  )
  if (items.length === 0) return
  const { item, part, place } = pick(random, items)
  const block = part.blocks.find((block) => block.kind === 'fixed-text')
  const first = /<(?:p|li)>([^<]{25,})</.exec(block?.html ?? '')?.[1]
  if (!first || !item.html?.includes(first)) return
  const list = first.split(' ')
  item.html = item.html.replace(
    first,
    [...list.slice(0, 3), 'as I see it,', ...list.slice(5)].join(' '),
  )
  edited.tell('fixed-text-altered', place)
}

const rewriteAnswer: CourseEdit = (edited, random) => {
  const items = edited.weekItems.filter(({ item }) =>
    /<p>(?:This week we take|We look at)/.test(item.html ?? ''),
  )
  if (items.length === 0) return
  const { item } = pick(random, items)
  item.html = (item.html ?? '').replace(
    /<p>(?:This week we take|We look at)[^<]*<\/p>/,
    '<p>What you learn here I learned the hard way, on a cold morning off the point. We begin with the gear itself, then go out, and then write it down together.</p>',
  )
}

const clearDue: CourseEdit = (edited, random) => {
  const items = edited.weekItems.filter(
    ({ item, part }) => part.dueAt !== null && item.dueAt !== null && item.kind === part.kind,
  )
  if (items.length === 0) return
  const { item, place } = pick(random, items)
  item.dueAt = null
  edited.tell('due-missing', place)
}
const changePoints: CourseEdit = (edited, random) => {
  const items = edited.weekItems.filter(
    ({ item, part }) => part.definition.settings.points !== undefined && item.kind === part.kind,
  )
  if (items.length === 0) return
  const { item, place } = pick(random, items)
  item.points = (item.points ?? 0) + 5
  edited.tell('points-differ', place)
  edited.either('rubric-points', place)
}

const makeAgain: CourseEdit = (edited, random) => {
  const items = edited.weekItems.filter(({ item }) => item.kind === 'page' && item.html !== null)
  if (items.length === 0) return
  const { item, module, place } = pick(random, items)
  const at = module.children.indexOf(item)
  const again: CourseItem = {
    ...structuredClone(item),
    id: edited.newId(),
    url: `/courses/${edited.course.id}/again-${at}-${edited.newId()}`,
    html: (item.html ?? '')
      .replace(/ data-wicker-[a-z]+="[^"]*"/g, '')
      .replace(/<\/?div[^>]*>/g, ''),
  }
  delete again.recordedAs
  edited.remove(item)
  module.children.splice(at, 0, again)
  edited.pair(place, again.id)
  edited.either('item-name', place)
}

const ownPage: CourseEdit = (edited, random) => {
  const weeks = edited.weekModules
  if (weeks.length === 0) return
  const { module } = pick(random, weeks)
  const like = itemsIn(module)[0]
  if (!like) return
  const id = edited.newId()
  module.children.splice(1, 0, {
    ...like,
    id,
    kind: 'page',
    url: null,
    points: null,
    dueAt: null,
    category: null,
    target: null,
    name: pick(random, [
      'What the old hands say',
      'A word on knots',
      'Songs for the capstan',
      'Pictures from the slip',
    ]),
    html: '<p>Three skippers on their first winter at sea, told to me over coffee. Read before class; it is short.</p>',
    recordedAs: undefined,
    work: undefined,
    rubric: undefined,
  })
  edited.either('name-clash', id)
}

/** Strips what deployment left in the pages, and wraps paragraphs the way editors do. */
export const stripMarkers = (edited: EditedCourse): void => {
  for (const item of edited.items)
    if (item.html !== null)
      item.html = item.html
        .replace(/ data-wicker-[a-z]+="[^"]*"/g, '')
        .replace(/<p>/g, '<p class="para">')
        .replace(/&nbsp;/g, ' ')
}

/** Folds the weeks into four units, the way templates allow. */
export const groupIntoUnits = (edited: EditedCourse): void => {
  const all = edited.course.modules.filter((module) => /^Week \d/.test(module.name))
  const per = Math.ceil(all.length / 4)
  for (let unit = 0; unit < 4; unit++) {
    const own = all.slice(unit * per, (unit + 1) * per)
    const [first] = own
    if (!first) continue
    const number = (module: (typeof own)[number]) => Number(/\d+/.exec(module.name)?.[0])
    const id = edited.newId()
    const at = edited.course.modules.indexOf(first)
    const items = own.flatMap((module) => itemsIn(module))
    for (const module of own) {
      const place = edited.placeOf(module.id)
      edited.unpair(module.id)
      if (place !== null) edited.forget(place)
    }
    edited.course.modules = edited.course.modules.filter((module) => !own.includes(module))
    edited.course.modules.splice(at, 0, {
      id,
      name: `Unit ${unit + 1} · Weeks ${number(first)}–${number(own.at(-1) ?? first)}`,
      kind: 'module',
      published: true,
      staffOnly: false,
      opensAt: null,
      children: items,
    })
    edited.pair(`week#unit ${unit + 1}`, id)
    for (const rule of ['module-name', 'number-sequence', 'opened-ahead', 'week-dates'])
      edited.either(rule, `week#unit ${unit + 1}`)
    for (const item of items) {
      const place = edited.placeOf(item.id)
      const part = place === null ? null : edited.partAt(place)
      if (!part || place === null) continue
      for (const rule of [
        'out-of-order',
        'last-in-module',
        'work-list-complete',
        'due-outside-module',
        'item-name',
        'number-sequence',
        'fixed-text-altered',
        'name-clash',
        'due-missing',
        'other-week-date',
        'schedule-disagrees',
      ]) {
        edited.either(rule, `${part.key}#unit ${unit + 1}`)
        edited.either(rule, place)
        edited.either(rule, item.id)
      }
      // Asked for once in a unit, any of its weeks’ copies is right.
      if (part.definition.kind !== 'module' && part.definition.inGroup === 'per-unit') {
        edited.unpair(item.id)
        edited.pair(`${part.key}#unit ${unit + 1}`, item.id)
      }
    }
  }
}

/** The first edit model: with it the pairing was developed. */
export const editModel: readonly (readonly [CourseEdit, number])[] = [
  [renameModule, 3],
  [renameItem, 4],
  [deleteAllowed, 3],
  [deleteNeeded, 1.5],
  [reorderItem, 1.5],
  [pullModuleUp, 0.5],
  [moveElsewhere, 1],
  [duplicateAndEdit, 1],
  [splitPage, 0.5],
  [mergeWeeks, 0.4],
  [lastTermsPage, 1],
  [retype, 0.7],
  [hide, 0.4],
  [rewriteFixed, 1.5],
  [rewriteAnswer, 3],
  [clearDue, 0.8],
  [changePoints, 0.8],
  [makeAgain, 1],
  [ownPage, 2],
  [renameAllModules, 0.4],
]
