import { describe, expect, it } from 'vitest'
import { applyChanges, documentHand, everyCourseItem, itemsIn } from '../course/index.ts'
import { exampleCourse } from '../rules/example/exampleCourse.ts'
import { gradedTemplate } from '../rules/example/gradedTemplate.ts'
import type { ExampleCourse } from '../rules/index.ts'
import { edited, waiver } from './edited.testing.ts'
import { mendCourse, type MendedCourse } from './index.ts'

const asOf = '2026-09-16'
const mended = (
  example: ExampleCourse,
  isChosen: Parameters<typeof mendCourse>[1] = () => true,
): MendedCourse => {
  const result = mendCourse({ ...example, asOf }, isChosen)
  if (!result.ok) throw new Error(JSON.stringify(result.problems))
  return result.value
}
/** Week 2 without anything but its first item, and the list of work in its overview kept. */
const hollow = () =>
  edited(({ module }) => void module('week', 2).children.splice(1, Number.MAX_SAFE_INTEGER))
/** Week 2 without its overview, in which its work is listed with links, and without that work. */
const withoutItsList = () => {
  const template = gradedTemplate()
  const example = exampleCourse(template)
  const week = example.module('week', 2)
  week.children = week.children.filter(
    (child) =>
      !['week-overview', 'discussion', 'assignment']
        .map((key) => example.item(key, 2))
        .some((item) => item === child),
  )
  return example
}
const namesIn = (example: ExampleCourse, course = example.course) =>
  itemsIn(course.modules[2] ?? example.module('week', 2)).map(({ name }) => name)

describe('mends of one course', () => {
  it('are sent as one set, which makes of the course as it is what was worked out', () => {
    for (const example of [
      hollow(),
      edited(({ module, item }) => {
        module('week', 2).children.pop()
        module('week', 3).children.reverse()
        item('quiz', 4).dueAt = null
        module('week', 5).name = 'wk 5'
      }),
    ]) {
      const { changes, course, after } = mended(example)
      const sent = applyChanges(example.course, changes, documentHand(example.course))
      if (!sent.ok) throw new Error(sent.problems.message)
      expect(sent.value.course).toEqual(course)
      expect(after.findings).toEqual([])
    }
  })
  it('speak of what they make by the name they made it under, also in links', () => {
    const example = withoutItsList()
    const {
      changes,
      course,
      mended: done,
    } = mended(example, ({ rule }) => rule === 'item-missing' || rule === 'work-list-complete')
    // The list of the overview could not lead to what was made after it: its mend comes of theirs.
    expect(done.at(-1)?.rule).toBe('work-list-complete')
    const made = changes.flatMap((change) =>
      change.change === 'create-item' ? [change.clientId] : [],
    )
    expect(made).toHaveLength(3)
    const [overview, ...work] = made
    const last = changes.at(-1)
    expect(last).toMatchObject({ change: 'set-item', id: `ref:${overview}` })
    const spokenOf = [...JSON.stringify(last).matchAll(/href=\\"ref:([^"\\]+)/g)]
    expect(spokenOf.map(([, client]) => client)).toEqual(work)
    // Ids in memory are nobody else's.
    const known = new Set(everyCourseItem(example.course).map(({ item }) => item.id))
    for (const [, id] of JSON.stringify(changes).matchAll(/item:([\w-]+)/g))
      expect(known).toContain(id)
    const sent = applyChanges(example.course, changes, documentHand(example.course))
    if (!sent.ok) throw new Error(sent.problems.message)
    expect(sent.value.course).toEqual(course)
  })
  it('bring everything back in its order, several in one module', () => {
    const whole = exampleCourse()
    const { course, mended: done, left } = mended(hollow())
    // But for the quiz, which may be left out.
    expect(namesIn(whole, course)).toEqual(namesIn(whole).filter((name) => !/Quiz/.test(name)))
    expect(left).toEqual([])
    // Each place is mended once.
    expect(new Set(done.map(({ fingerprint }) => fingerprint)).size).toBe(done.length)
  })
  it('take out a note to the instructor as often as it stands there', () => {
    const note =
      '<p><strong>Note to the instructor.</strong></p><p>A short recording of yourself works well here.</p>'
    const example = edited(({ item }) => {
      const page = item('week-overview', 3)
      page.html = `${note}${page.html ?? ''}<div data-wicker-block="advice">${note}</div><p>Mine.</p>${note}`
    })
    const { mended: done, course, after } = mended(example)
    expect(done.map(({ rule }) => rule)).toEqual(['guidance-visible'])
    expect(after.findings).toEqual([])
    expect(JSON.stringify(course)).not.toContain('Note to the instructor')
    expect(JSON.stringify(course)).toContain('<p>Mine.</p>')
  })
  it('are none where nothing is wrong, and none of what is waived', () => {
    expect(mended(exampleCourse())).toMatchObject({ changes: [], mended: [], left: [] })
    const example = edited(({ module }) => void (module('week', 3).name = 'wk 3'))
    const result = mendCourse(
      { ...example, asOf, exemptions: { waivers: [waiver({ scope: 'rule' })], attestations: [] } },
      () => true,
    )
    expect(result.ok && [result.value.changes, result.value.left]).toEqual([[], []])
  })
  it('leave what only somebody knows, and say so, with where it is', () => {
    const example = edited(({ item }) => {
      const home = item('home-page')
      home.html = (home.html ?? '').replace(
        'Tuesdays 10 to 11, room 4',
        'When can students see you?',
      )
    })
    const { changes, left, before, after } = mended(example)
    expect(changes).toEqual([])
    expect(left).toEqual([
      {
        rule: 'fill-in-unfilled',
        fingerprint: before.findings[0]?.places[0]?.fingerprint,
        path: before.findings[0]?.places[0]?.place.path,
        message: before.findings[0]?.places[0]?.message,
        reason: 'the right answer is somebody’s to give',
      },
    ])
    expect(after.findings).toEqual(before.findings)
  })
  it('say nothing of what was not chosen', () => {
    const example = edited(({ item, module }) => {
      item('assignment', 2).dueAt = null
      module('week', 5).name = 'wk 5'
    })
    const { mended: done, left, after } = mended(example, ({ rule }) => rule === 'module-name')
    expect([done.map(({ rule }) => rule), left]).toEqual([['module-name'], []])
    expect(after.findings.map(({ rule }) => rule)).toEqual(['due-missing'])
  })
  it('are not worked out where the template cannot be used', () => {
    const example = exampleCourse()
    example.template.policies = [{ rule: 'no-such-rule', off: false, parameters: {} }]
    expect(mendCourse({ ...example, asOf }, () => true)).toMatchObject({
      ok: false,
      problems: [{ path: '/policies/0/rule' }],
    })
  })
})
