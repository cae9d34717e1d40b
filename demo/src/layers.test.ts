import { describe, expect, it } from 'vitest'
import {
  applyEdit,
  checkCourse,
  expandCourse,
  everyExpected,
  offeredBlocks,
  proofread,
  weakenings,
  type Course,
  type Template,
} from '@wickerframe/core'
import {
  coastalNavigation,
  demoTemplate,
  factsOfRoster,
  harbourDraftEdits,
  makeCourse,
  makeRoster,
  navigationProgramme,
  templateFiles,
  workshopStandard,
} from './index.ts'

const facts = factsOfRoster(makeRoster(24))
  .map(({ facts }) => facts)
  .find(({ code }) => code === 'NAV 110')
if (!facts) throw new Error('the roster has NAV 110')
const harbour: Template = { ...demoTemplate('harbour-standard.json'), version: 1 }
const programme: Template = { ...navigationProgramme(harbour), version: 1 }
const nav110: Template = { ...coastalNavigation(programme), version: 1 }
const draft = harbourDraftEdits.reduce((now, edit) => {
  const next = applyEdit(now, edit)
  if (!next.ok) throw new Error(JSON.stringify(next.problems))
  return next.value.template
}, harbour)

const withoutIdentity = (course: Course): Course =>
  JSON.parse(
    JSON.stringify(course, (field, value: unknown) =>
      field === 'recordedAs'
        ? undefined
        : typeof value === 'string'
          ? value.replace(/ data-wicker-(?:block|part)="[^"]*"/g, '')
          : value,
    ),
  ) as Course
const rulesFound = (template: Template, course: Course): string[] => {
  const checked = checkCourse({ template, facts, course, asOf: '2026-09-16' })
  if (!checked.ok) throw new Error(JSON.stringify(checked.problems))
  return [...new Set(checked.value.findings.map((finding) => finding.rule))].sort()
}

describe('the demo’s layers', () => {
  it('weaken nothing of what they are built on, and can be released', () => {
    expect([
      ...weakenings(harbour, programme),
      ...weakenings(programme, nav110),
      ...weakenings(harbour, nav110),
    ]).toEqual([])
    for (const template of [programme, nav110, draft, workshopStandard()])
      expect(proofread(template).filter(({ severity }) => severity === 'error')).toEqual([])
  })
  it('show every kind of block there is, a formula, questions, files and the reader’s name', () => {
    const shown = JSON.stringify([
      nav110,
      workshopStandard(),
      ...templateFiles.map((file) => demoTemplate(file)),
    ])
    expect(
      offeredBlocks.map(({ kind }) => kind).filter((kind) => !shown.includes(`"kind":"${kind}"`)),
    ).toEqual([])
    for (const piece of ['<math', '{reader, ', '"questions":{', '"files":["'])
      expect([piece, shown.includes(piece)]).toEqual([piece, true])
  })
  it('give NAV 110 chart work each week, a review at the end of each unit, and the day at sea', () => {
    const expansion = expandCourse({ template: nav110, facts, mintFrom: 'demo' })
    const parts = expansion.ok
      ? everyExpected(expansion.value.parts).filter((part) => !part.inBreak)
      : []
    const count = (key: string) => parts.filter((part) => part.key === key).length
    expect([
      count('chart-work'),
      count('unit-review'),
      count('first-bearings'),
      count('sea-day'),
    ]).toEqual([15, 4, 1, 1])
  })
  it.each([
    ['a layer on a layer', nav110],
    ['a draft with exceptions', draft],
  ])(
    'deployed to a course, %s has findings of what is not filled in, and no other',
    (_, template) => {
      const course = makeCourse('demo', template, facts, 'not begun', 1)
      const found = ['course-unpublished', 'fill-in-unfilled']
      expect(rulesFound(template, course)).toEqual(found)
      expect(rulesFound(template, withoutIdentity(course))).toEqual(found)
    },
  )
  it.each([
    // What its syllabus says of outcomes leads to weeks that are no longer there.
    ['a layer on a layer', nav110, ['link-dead']],
    ['a draft with exceptions', draft, []],
  ])(
    'grouped into four units, a course of %s has each week’s exceptions in its unit',
    (_, template, more) => {
      const course = makeCourse('demo', template, facts, 'four units', 1)
      // The instructor’s own names of the units, which all stand open, and what the story leaves unfilled.
      expect(rulesFound(template, course)).toEqual(
        ['fill-in-unfilled', ...more, 'module-name', 'opened-ahead'].sort(),
      )
    },
  )
})
