import { describe, expect, it } from 'vitest'
import { everyExpected } from '../expand/index.ts'
import type { CourseModule } from '../course/index.ts'
import { courseItem, courseModule } from '../rules/example/courseParts.ts'
import { exampleCourse } from '../rules/example/exampleCourse.ts'
import { exampleContext } from './exampleContext.testing.ts'
import { checkCourse } from './index.ts'
import { whoseMoves } from './whoseMoves.ts'

const owner = 'sunniva.drake@kestrelsound.example'
const [ana, bo] = ['ana@kestrelsound.example', 'bo@kestrelsound.example'] as const
/** The example, with what the instructor wrote in each of these weeks taken out again. */
const unfilled = (...weeks: number[]) => {
  const example = exampleCourse()
  for (const week of weeks) {
    const page = example.item('week-overview', week)
    page.html = (page.html ?? '').replace(
      'We learn what the chart leaves out.',
      'In two or three sentences, say what this week is about.',
    )
  }
  return example
}
const instanceOf = (example: ReturnType<typeof exampleCourse>, week: number): string =>
  exampleContext(example).partOf(example.module('week', week).id)?.instance ?? ''
const moves = (example: ReturnType<typeof exampleCourse>) => {
  const result = checkCourse({ ...example, asOf: '2026-10-20' })
  if (!result.ok) throw new Error(JSON.stringify(result.problems))
  const theirs = result.value.findings.filter(({ mender }) => mender === 'instructor')
  return theirs.flatMap(({ owner, places }) =>
    places.map(({ place }): [number | null, string | null] => [place.week, owner]),
  )
}

describe('whose move a finding is', () => {
  it('is the owner’s of the course, or of the first who teaches it', () => {
    const example = unfilled(2, 4)
    expect(moves(example)).toEqual([
      [2, owner],
      [4, owner],
    ])
    example.facts.instructors.push({ name: 'Ana', email: ana })
    example.facts.owner = ana
    expect(moves(example)).toEqual([
      [2, ana],
      [4, ana],
    ])
  })
  it('is that of a module’s own owner, and findings of one kind stand apart by who must act', () => {
    const example = unfilled(2, 4, 6)
    example.facts.moduleOwners = { [instanceOf(example, 4)]: ana }
    expect(moves(example).sort()).toEqual([
      [2, owner],
      [4, ana],
      [6, owner],
    ])
  })
  it('stays with the module’s owner when the module is called something else', () => {
    const example = unfilled(4)
    example.facts.moduleOwners = { [instanceOf(example, 4)]: ana }
    example.module('week', 4).name = 'The compass, and all that'
    expect(new Set(moves(example).map(([, who]) => who))).toEqual(new Set([ana]))
  })
  it('is that of the owner of the template’s module, for what is not there at all', () => {
    const example = exampleCourse()
    const week = example.module('week', 4)
    const gone = example.item('checklist', 4)
    example.facts.moduleOwners = { [instanceOf(example, 4)]: ana }
    week.children = week.children.filter((child) => !('id' in child) || child.id !== gone.id)
    const context = exampleContext(example)
    const missing = everyExpected(context.expected.parts).filter(({ key }) => key === 'checklist')
    const moves = missing.map((part) => whoseMoves(context)({ about: 'part', part }, null))
    expect(moves.filter((who) => who === ana)).toHaveLength(1)
    expect(moves.indexOf(ana)).toBe(missing.findIndex(({ week: of }) => of?.number === 4))
  })
  it('goes by the innermost module of the course’s own that has an owner, by platform id', () => {
    const example = exampleCourse()
    const inner: CourseModule = courseModule('inner', 'Inner', [courseItem('page', 'Page')])
    example.course.modules.push(
      courseModule('outer', 'Outer', [inner, courseItem('other', 'Other')]),
    )
    example.facts.moduleOwners = { outer: ana, inner: bo }
    const mover = whoseMoves(exampleContext(example))
    const of = (id: string) => mover({ about: 'found', id, name: '' }, id)
    expect(['page', 'inner', 'other', 'outer', 'nowhere'].map(of)).toEqual([
      bo,
      bo,
      ana,
      ana,
      owner,
    ])
    expect(mover({ about: 'course' }, null)).toBe(owner)
  })
})
