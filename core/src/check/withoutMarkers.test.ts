import { describe, expect, it } from 'vitest'
import { usualSentences } from '../begin/index.ts'
import { dayNumber } from '../calendar/index.ts'
import { itemsIn, type Course, type CourseItem, type CourseModule } from '../course/index.ts'
import { keptPage } from '../page/keptPage.testing.ts'
import { remember } from '../remember/index.ts'
import { faultless, ownPage, treatments, type FaultlessCase } from './faultless.testing.ts'
import { checkCourse, type Expectation } from './index.ts'

/*
 * One thing goes wrong in a faultless course, and that one thing is told: with what deployment recorded and the marks in its
 * pages, and without either, as in a course that was copied, imported or never deployed by us.
 */

/** Half as long as usual: what is told of eight weeks is told of sixteen. */
const sentences = { ...usualSentences(), lengths: [8] }
const weeks: FaultlessCase = {
  from: sentences,
  language: 'English',
  named: null,
  home: { without: 0, turned: 0 },
  exceptionIn: null,
  layered: false,
  styled: false,
  begins: dayNumber('2026-08-31'),
  reader: undefined,
  breakAfter: 0,
  timeZone: 'America/Halifax',
  looked: 0,
  asks: false,
  leaves: [],
  answers: 'long',
}
const kinds = {
  weeks,
  'weeks without dates': { ...weeks, from: { ...sentences, named: 'number-topic' } },
  'weeks by number alone': { ...weeks, from: { ...sentences, named: 'number' } },
  'numbers without words': { ...weeks, named: '{N, 00} / {topic} / {dates}' },
  units: { ...weeks, from: { ...sentences, per: 'unit', units: 4 } },
  'the example': { ...weeks, from: 'the example' },
  'the example at its end': { ...weeks, from: 'the example', looked: 1 },
} satisfies Record<string, FaultlessCase>
type Kind = keyof typeof kinds

const moduleAt = (course: Course, at: number): CourseModule => {
  const module = course.modules[at]
  if (!module) throw new Error(`no module ${at}`)
  return module
}
const pageOf = (module: CourseModule, at = 0): CourseItem & { html: string } => {
  const item = itemsIn(module)[at]
  if (!item || item.html === null) throw new Error(`no page ${at} in ${module.name}`)
  return item as CourseItem & { html: string }
}
const rename = (module: CourseModule, from: string, to: string): void => {
  module.name = module.name.replace(from, to)
}
/** Puts modules into the first of them, under a name. */
const fold = (course: Course, first: number, count: number, name: string): void => {
  const [into, ...rest] = course.modules.splice(first, count)
  if (!into) throw new Error(`no module ${first}`)
  for (const module of rest) into.children.push(...module.children)
  into.name = name
  course.modules.splice(first, 0, into)
}
const named = (module: CourseModule, name: string): CourseItem => {
  const item = itemsIn(module).find((item) => item.name.includes(name))
  if (!item) throw new Error(`no ${name} in ${module.name}`)
  return item
}
const takeOut = (module: CourseModule, name: string): void => {
  const item = named(module, name)
  module.children = module.children.filter((child) => child !== item)
}
const copied = <T extends CourseItem>(item: T): T => {
  const copy = structuredClone(item)
  copy.id = 'a-copy'
  copy.url = '/courses/f/a-copy'
  delete copy.recordedAs
  return copy
}
const asUnits = (course: Course, names: readonly string[]): void =>
  names.forEach((name, i) => fold(course, i + 1, 2, name))
const readableUnits = [
  'Unit 1 · Aug 31 – Sep 13 · Charts',
  'Unit 2 · Sep 14 – Sep 27 · Streams',
  'Unit 3 · Sep 28 – Oct 11 · Plans',
  'Unit 4 · Oct 12 – Oct 23 · Knots',
]
/** Takes a page apart where a text begins; what follows stands in a page after it. */
const split = (module: CourseModule, heading: string): void => {
  const page = pageOf(module)
  const at = page.html.search(new RegExp(`(<div[^>]*>)?<h3>${heading}`))
  if (at < 0) throw new Error(`no ${heading}`)
  module.children.splice(1, 0, { ...ownPage('half', 'More of it'), html: page.html.slice(at) })
  page.html = page.html.slice(0, at)
}

const cases: {
  title: string
  in: readonly Kind[]
  change: (course: Course) => void
  /** Rules of the findings that are open, musts and shoulds, each as often as it is told. */
  told: readonly string[]
}[] = [
  { title: 'nothing', in: ['weeks', 'units', 'the example'], change: () => {}, told: [] },
  {
    title: 'a week has the number of the next',
    in: ['weeks', 'weeks without dates', 'weeks by number alone', 'the example'],
    change: (course) => rename(moduleAt(course, 5), 'Week 5', 'Week 6'),
    told: ['number-sequence'],
  },
  {
    title: 'a week has the number of the next, and no word beside it',
    in: ['numbers without words'],
    change: (course) => rename(moduleAt(course, 4), '04 /', '05 /'),
    told: ['number-sequence'],
  },
  {
    title: 'a week has an earlier number and a topic, and no more',
    in: ['numbers without words'],
    change: (course) => {
      moduleAt(course, 4).name = '02 / Knots'
    },
    told: ['number-sequence'],
  },
  {
    title: 'a unit has the number of the next',
    in: ['units'],
    change: (course) => rename(moduleAt(course, 2), 'Unit 2', 'Unit 3'),
    told: ['number-sequence'],
  },
  {
    title: 'two numbers are swapped',
    in: ['weeks', 'weeks without dates', 'weeks by number alone', 'the example'],
    change: (course) => {
      rename(moduleAt(course, 5), 'Week 5', 'Week 6')
      rename(moduleAt(course, 6), 'Week 6', 'Week 5')
    },
    told: ['module-name'],
  },
  {
    title: 'a week carries the dates of last year',
    in: ['weeks', 'the example'],
    change: (course) => rename(moduleAt(course, 4), 'Sep 21 – Sep 27', 'Sep 22 – Sep 28'),
    told: ['week-dates'],
  },
  {
    title: 'two weeks are folded into one',
    in: ['the example'],
    change: (course) => fold(course, 3, 2, 'Weeks 3 and 4 · Sep 14 – Sep 27 · Streams'),
    told: ['module-missing'],
  },
  {
    title: 'two weeks are folded into one that keeps the name of the first',
    in: ['the example'],
    change: (course) => fold(course, 3, 2, moduleAt(course, 3).name),
    told: ['module-missing'],
  },
  {
    title: 'two weeks are folded into one, to which the schedule no longer finds its way',
    in: ['weeks'],
    change: (course) => fold(course, 3, 2, 'Weeks 3 and 4 · Sep 14 – Sep 27 · Streams'),
    told: ['link-dead', 'module-missing'],
  },
  {
    title: 'weeks are made into units that the template accepts',
    in: ['the example'],
    change: (course) => asUnits(course, readableUnits),
    told: [],
  },
  {
    title: 'one of such units is gone',
    in: ['the example'],
    change: (course) => {
      asUnits(course, readableUnits)
      course.modules.splice(3, 1)
    },
    told: ['module-missing'],
  },
  {
    title: 'what units cover cannot be read',
    in: ['the example'],
    change: (course) => asUnits(course, ['Unit 1 · A', 'Unit 2 · B', 'Unit 3 · C', 'Unit 4 · D']),
    told: ['module-count?'],
  },
  {
    title: 'two units claim the same week',
    in: ['the example'],
    change: (course) =>
      asUnits(course, [
        'Unit 1: Weeks 1–2',
        'Unit 2: Weeks 2–4',
        'Unit 3: Weeks 5–6',
        'Unit 4: Weeks 7–8',
      ]),
    told: ['module-count?'],
  },
  {
    title: 'a quiz of the instructor’s own is not in the list of work',
    in: ['weeks', 'units'],
    change: (course) => {
      const quiz = {
        ...ownPage('quiz', 'A quiz of my own'),
        kind: 'assessment',
        html: null,
      } as const
      const module = moduleAt(course, 1)
      const { dueAt } = itemsIn(module).find((item) => item.dueAt !== null) ?? {}
      module.children.splice(-1, 0, { ...quiz, dueAt: dueAt ?? null })
    },
    told: ['work-list-complete'],
  },
  {
    title: 'week 3’s overview stands where week 4’s should',
    in: ['weeks', 'the example'],
    change: (course) => {
      const [there, here] = [pageOf(moduleAt(course, 3)), pageOf(moduleAt(course, 4))]
      Object.assign(here, { name: there.name, html: there.html })
    },
    told: ['twin-page'],
  },
  {
    title: 'week 4’s overview holds week 3’s text under its own name',
    in: ['weeks'],
    change: (course) => {
      pageOf(moduleAt(course, 4)).html = pageOf(moduleAt(course, 3)).html
    },
    told: ['twin-page'],
  },
  {
    title: 'two weeks say the same, in pages that name no week',
    in: ['the example'],
    change: (course) => {
      pageOf(moduleAt(course, 4)).html = pageOf(moduleAt(course, 3)).html
    },
    told: [],
  },
  {
    title: 'a copy of week 3’s overview stands in the place of week 4’s',
    in: ['weeks', 'the example'],
    change: (course) =>
      void moduleAt(course, 4).children.splice(0, 1, copied(pageOf(moduleAt(course, 3)))),
    told: ['twin-page'],
  },
  {
    title: 'a copy of week 3’s overview stands beside it, and week 4’s is gone',
    in: ['the example'],
    change: (course) => {
      moduleAt(course, 3).children.splice(1, 0, copied(pageOf(moduleAt(course, 3))))
      moduleAt(course, 4).children.splice(0, 1)
    },
    told: ['twin-page'],
  },
  {
    title: 'a page is gone, and one of the instructor’s own bears the number of its week',
    in: ['the example'],
    change: (course) => {
      const module = moduleAt(course, 3)
      takeOut(module, 'Week 3 checklist')
      module.children.push(ownPage('own', 'Week 3 in pictures'))
    },
    told: ['item-missing'],
  },
  {
    title:
      'a page bears the name of the next week’s, which is gone, and its week’s list leads to it',
    in: ['weeks'],
    change: (course) => {
      takeOut(moduleAt(course, 4), 'Week 4 checklist')
      named(moduleAt(course, 3), 'Week 3 checklist').name = 'Week 4 checklist'
    },
    told: ['item-missing', 'item-name'],
  },
  {
    title: 'the next week’s page is moved to where a page is gone',
    in: ['the example'],
    change: (course) => {
      takeOut(moduleAt(course, 3), 'Week 3 checklist')
      const page = named(moduleAt(course, 4), 'Week 4 checklist')
      moduleAt(course, 4).children.splice(-1, 1)
      moduleAt(course, 3).children.push(page)
    },
    told: ['item-missing'],
  },
  {
    title: 'a week without its own quiz takes in the next week',
    in: ['the example'],
    change: (course) => {
      takeOut(moduleAt(course, 3), 'Quiz 3')
      fold(course, 3, 2, moduleAt(course, 3).name)
    },
    told: ['module-missing'],
  },
  {
    title: 'two units stand beside weeks',
    in: ['the example'],
    change: (course) => {
      fold(course, 6, 3, 'Unit 2 · Oct 5 – Oct 23 · Plans')
      fold(course, 2, 2, 'Unit 1 · Sep 7 – Sep 20 · Compass')
    },
    told: [],
  },
  {
    title: 'two weeks in one module are hidden with it',
    in: ['the example at its end'],
    change: (course) => {
      fold(course, 1, 2, moduleAt(course, 1).name)
      moduleAt(course, 1).published = false
    },
    told: ['module-missing', 'must-part-hidden'],
  },
  {
    title: 'a page is taken apart',
    in: ['weeks'],
    change: (course) => split(moduleAt(course, 4), 'By the end'),
    told: [],
  },
  {
    title: 'a page is taken apart before its list of work',
    in: ['weeks'],
    change: (course) => split(moduleAt(course, 4), 'To do'),
    told: [],
  },
  {
    title: 'the course opens on a page of the instructor’s own',
    in: ['weeks', 'the example'],
    change: (course) => {
      course.stray.push(ownPage('front', 'My front page'))
      course.homePage = 'front'
    },
    told: ['home-page-set'],
  },
  {
    title: 'the course opens on its welcome',
    in: ['weeks', 'the example'],
    change: (course) => {
      course.homePage = pageOf(moduleAt(course, 0)).id
    },
    told: ['home-page-set'],
  },
  {
    title: 'the home page is bare',
    in: ['weeks', 'the example'],
    change: (course) => {
      const home = course.stray.find(({ id }) => id === course.homePage)
      if (home) home.html = '<p>Hello.</p>'
    },
    told: ['home-element-missing'],
  },
]

/** Somebody’s word stands in no course, and a short syllabus is told of what is kept short here. */
const toldRightly = new Set(['tool-not-attested', 'syllabus-attached'])

/** Each kind is deployed once; each case has a course of its own. */
const deployed = remember(10, (kind: Kind) => faultless(kinds[kind]))
const worked = remember(10, (_kind: Kind) => new Map<string, Expectation>())
const toldIn = (kind: Kind, stripped: boolean, change: (course: Course) => void) => {
  const { course: whole, ...about } = deployed(kind)
  const course = structuredClone(whole)
  if (stripped) {
    treatments['loses its marks'](course)
    treatments['loses its identity'](course)
  }
  change(course)
  const result = checkCourse({ ...about, course, pageOf: keptPage, worked: worked(kind) })
  if (!result.ok) throw new Error(JSON.stringify(result.problems))
  const questions = result.value.outcomes.filter(({ outcome }) => outcome === 'cannot-tell')
  return [
    ...result.value.findings.filter(({ strength }) => strength !== 'may').map(({ rule }) => rule),
    ...questions.map(({ rule }) => `${rule}?`),
  ]
    .filter((rule) => !toldRightly.has(rule.replace('?', '')))
    .sort()
}

describe.each([
  ['with identity and marks', false],
  ['without either', true],
] as const)('%s', (_, stripped) => {
  it.each(cases.flatMap(({ in: of, ...rest }) => of.map((kind) => ({ ...rest, kind }))))(
    '$title ($kind): $told',
    ({ kind, change, told }) => {
      expect(toldIn(kind, stripped, change)).toEqual(told)
    },
  )
})
