import { describe, expect, it } from 'vitest'
import { courseModule } from '../rules/example/courseParts.ts'
import { addDays, dateOfDayNumber, dayNumber } from '../calendar/index.ts'
import { exampleCourse } from '../rules/example/exampleCourse.ts'
import { rules, type ExampleCourse } from '../rules/index.ts'
import { edited } from './edited.testing.ts'
import { checkCourse, silence, type CheckResult } from './index.ts'

const check = (example: ExampleCourse, asOf = '2026-09-16'): CheckResult => {
  const result = checkCourse({ ...example, asOf })
  if (!result.ok) throw new Error(JSON.stringify(result.problems))
  return result.value
}
const verdict = (result: CheckResult) =>
  JSON.stringify([result.outcomes, result.findings, result.counts, result.readiness])

describe('a check', () => {
  it('finds nothing in a course that keeps to its template', () => {
    const result = check(exampleCourse())
    expect(result.findings).toEqual([])
    expect(result.readiness).toBe('ready')
    expect(result.counts.met).toBe(result.counts.requirements)
  })
  it('finds a fresh, untouched course far from ready, though it keeps everything', () => {
    const result = check(
      edited(
        ({ item }) =>
          (item('home-page').html = (item('home-page').html ?? '').replace(
            'Tuesdays 10 to 11, room 4',
            'When can students see you?',
          )),
      ),
    )
    expect(result.findings.map((finding) => finding.rule)).toEqual(['fill-in-unfilled'])
    expect(result.readiness).toBe('not-ready')
  })
  it('gives the same outcomes in the same order every time', () => {
    const spoilt = () =>
      edited(({ course, item, module }) => {
        module('week', 2).name = 'wk 2'
        item('assignment', 2).dueAt = null
        course.published = false
      })
    expect(check(spoilt())).toEqual(check(spoilt()))
  })
  it('tells the same omission over many weeks once, opened into its places', () => {
    const result = check(
      edited(({ module }) =>
        [1, 2, 3, 4].forEach((week) => void module('week', week).children.pop()),
      ),
    )
    expect(result.findings).toHaveLength(1)
    expect(result.findings[0]?.places.map((place) => place.place.week)).toEqual([1, 2, 3, 4])
    expect(result.findings[0]?.message).toContain('The same in weeks 2 – 4.')
    expect(result.counts.openMusts).toBe(1)
    expect(result.counts.requirements - result.counts.met).toBeGreaterThanOrEqual(4)
  })
  it.each([
    [[1, 3], 'week 3'],
    [[1, 2, 3], 'weeks 2 and 3'],
    [[1, 2, 4, 6, 7, 8], 'weeks 2, 4 and 6 – 8'],
  ])('says of weeks %j where else', (weeks, words) => {
    const result = check(
      edited(({ module }) => weeks.forEach((week) => void module('week', week).children.pop())),
    )
    expect(result.findings.map(({ message }) => message)).toEqual([
      expect.stringContaining(`. The same in ${words}.`),
    ])
  })
  it('tells a missing module once, and counts what stood in it as not met', () => {
    const whole = check(exampleCourse())
    const result = check(
      edited(
        ({ course, module }) =>
          void course.modules.splice(course.modules.indexOf(module('week', 3)), 1),
      ),
    )
    expect(result.findings.map((finding) => finding.rule)).toEqual(['module-missing'])
    const silent = result.outcomes.filter(
      (outcome) => outcome.outcome === 'failed' && outcome.toldBy !== null,
    )
    expect(silent.length).toBeGreaterThan(4)
    expect(new Set(silent.map((outcome) => outcome.toldBy))).toEqual(
      new Set([result.findings[0]?.places[0]?.fingerprint]),
    )
    expect(result.counts.met).toBeLessThan(whole.counts.met)
  })
  it('keeps a finding’s identity when the course changes elsewhere and when its evidence changes', () => {
    const first = check(edited(({ module }) => (module('week', 3).name = 'wk 3')))
    const second = check(
      edited(({ module, item }) => {
        module('week', 3).name = 'third week'
        item('assignment', 4).dueAt = null
        module('week', 1).children.pop()
      }),
    )
    const identity = (result: CheckResult) =>
      result.findings.find((finding) => finding.rule === 'module-name')?.places[0]?.fingerprint
    expect(identity(first)).toBeDefined()
    expect(identity(second)).toBe(identity(first))
  })
  it('is ready only as far as seen while a must could not be told', () => {
    const result = check(
      edited(({ course }) => {
        const start = course.modules[0]
        course.modules = start ? [start] : []
        for (const n of [1, 2, 3, 4]) course.modules.push(courseModule(`u${n}`, `Unit ${n}`))
      }),
    )
    expect(result.counts.cannotTell).toBe(1)
    expect(result.findings.filter((finding) => finding.rule === 'module-missing')).toEqual([])
  })
  it('is ready where only shoulds could not be told', () => {
    const example = edited(({ item }) => void (item('welcome').html = null))
    const untoldIn = ({ outcomes }: CheckResult) =>
      outcomes.filter(({ outcome }) => outcome === 'cannot-tell')
    const policies = [...new Set(untoldIn(check(example)).map(({ rule }) => rule))].map((rule) => ({
      rule,
      off: false,
      parameters: {},
      strength: 'should' as const,
    }))
    const result = check({ ...example, template: { ...example.template, policies } })
    expect(new Set(untoldIn(result).map(({ strength }) => strength))).toEqual(new Set(['should']))
    expect([result.counts.cannotTell, result.readiness]).toEqual([untoldIn(result).length, 'ready'])
  })
  it.each(['welcome', 'home-page'])(
    'is ready only as far as seen while the platform does not tell what the page %s says',
    (key) => {
      const result = check(edited(({ item }) => void (item(key).html = null)))
      expect([result.findings, result.readiness]).toEqual([[], 'ready-as-far-as-seen'])
      const untold = result.outcomes.filter(({ outcome }) => outcome === 'cannot-tell')
      expect(untold.map(({ rule }) => rule)).toContain('fill-in-unfilled')
      expect(result.counts.cannotTell).toBe(untold.length)
      for (const { reason, toldBy } of untold)
        expect([reason, toldBy]).toEqual([
          expect.stringMatching(
            /^“.*” could not be read: the platform does not tell what it says\.$/,
          ),
          null,
        ])
    },
  )
  it('refuses policies of rules that are not there or parameters they do not take', () => {
    const example = exampleCourse()
    example.template.policies = [
      { rule: 'no-such-rule', off: false, parameters: {} },
      { rule: 'week-dates', off: false, parameters: { toleranceDays: 'many' } },
    ]
    const result = checkCourse({ ...example, asOf: '2026-09-16' })
    expect(result.ok ? [] : result.problems).toMatchObject([
      {
        code: 'not-allowed',
        path: '/policies/0/rule',
        found: 'no-such-rule',
        expected: expect.stringMatching(/^one of .*week-dates, /) as unknown,
      },
      { path: '/policies/1/parameters/toleranceDays' },
    ])
  })
  it('lets a template turn a rule off, weaken it and say what it rests on', () => {
    const example = edited(({ course }) => void (course.published = false))
    const withPolicy = (policy: object) =>
      check({
        ...example,
        template: {
          ...example.template,
          policies: [{ rule: 'course-unpublished', off: false, parameters: {}, ...policy }],
        },
      })
    expect(withPolicy({ off: true }).findings).toEqual([])
    expect(withPolicy({ strength: 'should', basis: 'Rule 4' }).findings).toMatchObject([
      { strength: 'should', basis: 'Rule 4' },
    ])
  })
})

describe('time', () => {
  it('what is right in week 1 is wrong in week 5', () => {
    const hidden = () => edited(({ module }) => void (module('week', 4).published = false))
    const hiddenWeek = (asOf: string) =>
      check(hidden(), asOf).outcomes.find(
        (outcome) => outcome.rule === 'must-part-hidden' && outcome.place.week === 4,
      )?.outcome
    // What does not apply is counted, not listed.
    expect(hiddenWeek('2026-09-01')).toBeUndefined()
    expect(hiddenWeek('2026-09-15')).toBe('not-due-yet')
    expect(hiddenWeek('2026-09-21')).toBe('failed')
  })
  it('holds in the interval it names: every day inside gives the same, the days at its edges another', () => {
    const example = edited(({ module, item }) => {
      module('week', 4).published = false
      item('quiz', 6).dueAt = null
      item('week-overview', 2).html += '<p>Lorem ipsum</p>'
    })
    for (let asOf = '2026-08-20'; asOf < '2026-10-30'; asOf = addDays(asOf, 4)) {
      const result = check(example, asOf)
      const { from, until } = result.holds
      expect(from === null || from <= asOf).toBe(true)
      expect(until === null || until > asOf).toBe(true)
      if (from !== null) expect(verdict(check(example, from))).toBe(verdict(result))
      if (until !== null)
        expect(verdict(check(example, dateOfDayNumber(dayNumber(until) - 1)))).toBe(verdict(result))
    }
  })
})

describe('the silence table', () => {
  it('names rules that are there', () => {
    const ids = new Set(rules.map((rule) => rule.id))
    for (const { teller, silent } of silence)
      expect([ids.has(teller), ids.has(silent)]).toEqual([true, true])
  })
})

describe('mends', () => {
  it('remove the finding they were proposed for', async () => {
    const { applyChanges } = await import('../course/index.ts')
    const spoil: ((example: ExampleCourse) => void)[] = [
      ({ item }) => void Object.assign(item('staff-notes'), { staffOnly: false, published: true }),
      ({ module }) => void (module('week', 3).published = false),
      ({ module }) => void (module('week', 3).name = 'Week 3 · Sep 15 – Sep 21 · Compass'),
      ({ item }) => void (item('assignment', 2).dueAt = null),
      ({ course }) => void (course.homePage = null),
      ({ item }) =>
        void (item('welcome').html = (item('welcome').html ?? '').replace(
          'Call 5500.',
          'Call 4400.',
        )),
      ({ item }) =>
        void (item('week-overview', 3).html +=
          '<div data-wicker-block="advice"><p><strong>Note to the instructor.</strong></p><p>A short recording of yourself works well here.</p></div>'),
      ({ module }) => {
        const last = module('week', 2).children.pop()
        if (last) module('week', 2).children.unshift(last)
      },
    ]
    for (const change of spoil) {
      const example = edited(change)
      const before = check(example)
      const mend = before.findings.flatMap((finding) =>
        finding.places.flatMap((place) => place.mend ?? []),
      )
      expect(mend.length).toBeGreaterThan(0)
      const mended = applyChanges(example.course, mend, {
        newId: () => 'new',
        urlOf: (id) => id,
        rewriteHtml: (html) => html,
      })
      if (!mended.ok) throw new Error(mended.problems.message)
      expect(check({ ...example, course: mended.value.course }).findings).toEqual([])
    }
  })
})

describe('names that other courses carry as well', () => {
  const withClash = (
    name: string,
    clash: object,
    change: (example: ExampleCourse) => void = () => {},
  ) => {
    const result = checkCourse({
      ...edited(change),
      asOf: '2026-09-16',
      clashes: [
        {
          kind: 'calendar-name',
          name,
          others: ['NAV 205 Celestial Fixes'],
          sharesInstructor: false,
          ...clash,
        },
      ],
    })
    if (!result.ok) throw new Error(JSON.stringify(result.problems))
    return result.value.findings
      .filter((finding) => finding.rule === 'name-clash')
      .map((finding) => finding.message)
  }
  it('are told where they depart from the format', () => {
    expect(withClash('Quiz 1', {}, ({ item }) => void (item('quiz', 1).name = 'Quiz 1'))).toEqual([
      '“Quiz 1” also stands in students’ calendars for NAV 205 Celestial Fixes, so nobody sees whose it is.',
    ])
  })
  it('are left to the template where the format gives them, unless somebody teaches both', () => {
    const name = 'NAV 110 Coastal Navigation · Autumn 2026'
    expect(withClash(name, { kind: 'course-name' })).toEqual([])
    expect(withClash(name, { kind: 'course-name', sharesInstructor: true })).toEqual([
      'The name “NAV 110 Coastal Navigation · Autumn 2026” is also that of NAV 205 Celestial Fixes.',
    ])
  })
})
