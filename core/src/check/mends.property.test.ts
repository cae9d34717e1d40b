import * as fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import {
  type Course,
  everyCourseItem,
  everyModule,
  itemsIn,
  reachedItems,
  touchesWork,
  withRecordedIdentity,
} from '../course/index.ts'
import { acts, edit, instructorEdits, wordsIn } from '../plan/generated.testing.ts'
import { identityOf } from '../plan/index.ts'
import { platformNames, Standing } from '../plan/standing.testing.ts'
import { exampleFacts, exampleTemplate } from '../rules/example/exampleCourse.ts'
import { rules } from '../rules/index.ts'
import { mendCourse, type FindingPlace } from './index.ts'
import { propertyRuns } from '../testing/propertyRuns.testing.ts'

const keyOf = (number: number) => `Quiz ${number} answer key`
const restricted = '/c/files/extra-time'

/** What makes a course dangerous to mend: shut weeks with keys, staff pages and kept files in them, notes somebody wrote into. */
const dangers: Record<string, (course: Course, n: number) => void> = {
  'shuts a week': (course, n) => {
    const module = course.modules[n % course.modules.length]
    if (module) Object.assign(module, { published: false })
  },
  'shuts the course': (course) => void (course.published = false),
  'publishes what is for staff': (course) => {
    for (const { item } of everyCourseItem(course))
      if (/Notes for the instructor/.test(item.name))
        Object.assign(item, { staffOnly: false, published: true })
  },
  'puts a key into a week': (course, n) => {
    const module = course.modules[1 + (n % 4)]
    const like = module && itemsIn(module)[0]
    if (module && like)
      module.children.push({
        ...like,
        id: `key${n}-${everyCourseItem(course).length}`,
        name: keyOf(n % 8),
        points: null,
        published: true,
        html: '<p>B, C, A.</p>',
        recordedAs: undefined,
      })
  },
  'puts a kept file into a week': (course, n) => {
    const module = course.modules[1 + (n % 4)]
    const like = module && itemsIn(module)[0]
    course.files = [{ id: 'f', name: 'extra time.pdf', url: restricted, restricted: true }]
    if (module && like)
      module.children.push({
        ...like,
        id: `kept${n}-${everyCourseItem(course).length}`,
        kind: 'file',
        name: 'List',
        url: restricted,
        html: null,
        published: true,
        recordedAs: undefined,
      })
  },
  'writes into a note': (course, n) => {
    for (const { item } of everyCourseItem(course))
      if (n % 2 === 0 && item.html?.includes('A short recording of yourself works well here.'))
        item.html = item.html.replace(
          'works well here.',
          `works well here. My noteword${n}end stands. <img src="my-${n}.png" alt="mine">`,
        )
  },
  'gets work handed in': (course, n) => {
    const items = everyCourseItem(course)
    const item = items[n % items.length]?.item
    if (item)
      Object.assign(item, {
        studentWork: true,
        ...(item.id.startsWith('key') ? {} : { points: 7 }),
      })
  },
  'opened a week earlier': (course, n) => {
    const module = course.modules[n % course.modules.length]
    if (module) Object.assign(module, { published: false, opensAt: '2026-09-01T03:00:00Z' })
  },
}

const cases = fc.record({
  edits: acts(instructorEdits, 4),
  dangers: acts(dangers, 8),
  platform: fc.constantFrom(...platformNames),
  chosen: fc.oneof(
    fc.constant(rules.map((rule) => rule.id)),
    fc.subarray(
      rules.filter((rule) => rule.mend).map((rule) => rule.id),
      { minLength: 1, maxLength: 4 },
    ),
    fc.constantFrom(['must-part-hidden'], ['course-unpublished'], ['guidance-visible']),
  ),
  asOf: fc.constantFrom('2026-08-31', '2026-09-16', '2026-10-20'),
})

const worked = (course: Course) =>
  everyCourseItem(course).flatMap(({ item }) =>
    item.studentWork
      ? [
          [
            item.id,
            Object.fromEntries(Object.entries(item).filter(([field]) => touchesWork(field))),
          ] as const,
        ]
      : [],
  )
const keptIds = (course: Course, asOf: string): string[] =>
  everyCourseItem(course)
    .filter(
      ({ item, module }) =>
        item.name.startsWith('Notes for the instructor') ||
        item.url === restricted ||
        // A key may be seen once the work beside it is due.
        (item.id.startsWith('key') &&
          module &&
          itemsIn(module).some(
            (other) => other !== item && (other.dueAt ?? '').slice(0, 10) > asOf,
          )),
    )
    .map(({ item }) => item.id)
const noteWords = (course: Course): string[] =>
  [...new Set(JSON.stringify(course).match(/noteword\d+end|my-\d+\.png/g) ?? [])].sort()

describe('no mend, alone, in any choice or order', () => {
  it('shows what is kept from students, loses a word that is not ours, or touches student work', () => {
    let mended = 0
    const refusals = new Set<string>()
    fc.assert(
      fc.property(cases, (given) => {
        const at = new Standing(given.platform)
        at.deploy()
        edit(at, given.edits, 'early')
        const course = structuredClone(at.course)
        course.published = true
        for (const module of everyModule(course.modules)) module.published = true
        for (const { name, n } of given.dangers) dangers[name]?.(course, n)
        const identified = withRecordedIdentity(course, identityOf(at.base))
        const chosen = new Set(given.chosen)
        const result = mendCourse(
          {
            template: exampleTemplate(),
            facts: exampleFacts(),
            course: identified,
            asOf: given.asOf,
          },
          (finding) => chosen.has(finding.rule),
        )
        if (!result.ok) throw new Error(JSON.stringify(result.problems[0]))
        const { course: after, left } = result.value
        mended += result.value.mended.length
        const seen = reachedItems(course)
        const now = reachedItems(after)
        expect(keptIds(course, given.asOf).filter((id) => now.has(id) && !seen.has(id))).toEqual([])
        expect(wordsIn(after, 'early')).toEqual(wordsIn(course, 'early'))
        expect(noteWords(after)).toEqual(noteWords(course))
        const workAfter = new Map(worked(after))
        for (const [id, fields] of worked(course)) expect(workAfter.get(id)).toEqual(fields)
        for (const { reason } of left)
          if (/students have work/.test(reason)) refusals.add('work')
          else if (/somebody’s own/.test(reason)) refusals.add('own')
        expect(left.filter(({ reason }) => /all the same/.test(reason))).toEqual([])
      }),
      propertyRuns(),
    )
    // The cases do come to mends, and to each reason for leaving one.
    expect(mended).toBeGreaterThan(propertyRuns().numRuns / 4)
    expect([...refusals].sort()).toEqual(['own', 'work'])
  })
})

describe('opening a week', () => {
  const opened = (change: (course: Course) => void, rule = 'must-part-hidden') => {
    const at = new Standing('keeps marks')
    at.deploy()
    const course = structuredClone(at.course)
    course.published = true
    for (const module of everyModule(course.modules)) module.published = true
    change(course)
    const result = mendCourse(
      {
        template: exampleTemplate(),
        facts: exampleFacts(),
        course: withRecordedIdentity(course, identityOf(at.base)),
        asOf: '2026-09-16',
      },
      (finding) => finding.rule === rule,
    )
    if (!result.ok) throw new Error('it cannot be checked')
    return result.value
  }
  it('hides a key in it first, and the preview says so', () => {
    const { mended, course } = opened((danger) => {
      dangers['puts a key into a week']?.(danger, 2)
      const week = danger.modules[3]
      if (week) week.published = false
    })
    const changes = mended.flatMap(({ changes }) => changes)
    expect(changes).toMatchObject([
      { change: 'set-item', fields: { published: false } },
      { change: 'set-module', fields: { published: true } },
    ])
    expect(changes[0] && 'id' in changes[0] ? changes[0].id : '').toMatch(/^key2/)
    expect(course.modules[3]?.published).toBe(true)
  })
  it('keeps the date on which it rightly opened', () => {
    const { course, mended } = opened((danger) => dangers['opened a week earlier']?.(danger, 3))
    expect(mended).toHaveLength(1)
    expect(course.modules[3]).toMatchObject({ published: true, opensAt: '2026-09-01T03:00:00Z' })
  })
  it('of a whole course hides staff pages that were published while it was shut', () => {
    const { course } = opened((danger) => {
      dangers['publishes what is for staff']?.(danger, 0)
      danger.published = false
    }, 'course-unpublished')
    expect(course.published).toBe(true)
    const notes = everyCourseItem(course).filter(({ item }) => item.name.startsWith('Notes for'))
    expect(notes.map(({ item }) => item.published)).toEqual([false])
  })
})

describe('what is left', () => {
  it('has its true reason', () => {
    const at = new Standing('keeps marks')
    at.deploy()
    const course = structuredClone(at.course)
    course.published = true
    const assignment = everyCourseItem(course).find(({ item }) => item.kind === 'assignment')?.item
    if (!assignment) throw new Error('no assignment')
    Object.assign(assignment, { points: 7, studentWork: true })
    const result = mendCourse(
      {
        template: exampleTemplate(),
        facts: exampleFacts(),
        course: withRecordedIdentity(course, identityOf(at.base)),
        asOf: '2026-09-16',
      },
      (finding) => finding.rule === 'points-differ',
    )
    const left = result.ok ? result.value.left : []
    expect(left.map(({ reason }) => reason)).toEqual([
      `students have work in “${assignment.name}”; how it counts and when it is due is left alone`,
    ])
    const place: FindingPlace | undefined = result.ok
      ? result.value.before.findings.find((finding) => finding.rule === 'points-differ')?.places[0]
      : undefined
    expect(place).toMatchObject({ mend: null, refusal: { code: 'student-work' } })
  })
})
