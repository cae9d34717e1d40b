import { describe, expect, it } from 'vitest'
import { exampleCourse } from '../rules/example/exampleCourse.ts'
import { rules, type ExampleCourse } from '../rules/index.ts'
import { edited } from './edited.testing.ts'
import { checkCourse, type CheckResult, type Expectation } from './index.ts'

const check = (example: ExampleCourse): CheckResult => {
  const result = checkCourse({ ...example, asOf: '2026-09-16' })
  if (!result.ok) throw new Error(JSON.stringify(result.problems))
  return result.value
}

describe('the result of a check', () => {
  it('says of what it is: the template with its version, and the course as it was read', () => {
    const { schema, template, course, asOf } = check(exampleCourse())
    const example = exampleCourse()
    expect({ schema, template, course, asOf }).toEqual({
      schema: 'wickerframe.check/1',
      template: { key: 'example-standard', title: 'Example Standard', version: 1 },
      course: {
        id: example.course.id,
        name: example.course.name,
        code: example.facts.code,
        readAt: example.course.readAt,
      },
      asOf: '2026-09-16',
    })
    const { version, ...draft } = exampleCourse().template
    expect(version).toBe(1)
    expect(check({ ...exampleCourse(), template: draft }).template.version).toBeNull()
  })
  it('says for each part what stands for it, by the names it has in the course', () => {
    const example = edited(({ module, item }) => {
      module('week', 3).name = 'Third week'
      item('quiz', 3).name = 'A quiz'
    })
    const { pairs } = check(example)
    const found = (id: string) => pairs.find((pair) => pair.found === id)
    expect(found(example.item('quiz', 3).id)).toMatchObject({
      part: 'quiz',
      repetition: 3,
      path: ['Third week', 'A quiz'],
    })
    expect(found(example.module('week', 3).id)).toMatchObject({
      part: 'week',
      repetition: 3,
      path: ['Third week'],
    })
    expect(found(example.item('welcome').id)).toMatchObject({ part: 'welcome', repetition: null })
  })
  it('counts what is met, open and not due, and leaves out what is for information', () => {
    const spoilt = edited(({ module, item }) => {
      module('week', 4).published = false
      item('assignment', 2).dueAt = null
    })
    const result = check(spoilt)
    const counted = (outcome: string) =>
      result.outcomes.filter((one) => one.outcome === outcome && one.strength !== 'may').length
    expect(result.counts).toMatchObject({
      met: counted('passed'),
      requirements: counted('passed') + counted('failed'),
      notDueYet: counted('not-due-yet'),
      openMusts: 1,
    })
    expect(result.counts.notDueYet).toBeGreaterThan(0)
    expect(result.counts.inapplicable).toBeGreaterThan(0)
    const later = result.outcomes.filter(({ outcome }) => outcome === 'not-due-yet')
    for (const { reason } of later) expect(reason).toMatch(/^due 2026-\d\d-\d\d$/)
    // As information, nothing of it is open or counted as met.
    const { id } = rules.find((rule) => rule.id === 'due-missing') ?? { id: '' }
    const forInformation = check({
      ...spoilt,
      template: {
        ...spoilt.template,
        policies: [{ rule: id, off: false, parameters: {}, strength: 'may' }],
      },
    })
    const dues = result.outcomes.filter(({ rule, outcome }) => rule === id && outcome === 'passed')
    expect(forInformation.counts).toMatchObject({
      met: result.counts.met - dues.filter(({ strength }) => strength !== 'may').length,
      requirements: forInformation.counts.met,
      openMusts: 0,
    })
    expect(forInformation.readiness).toBe('ready')
    expect(forInformation.findings.map(({ strength }) => strength)).toEqual(['may'])
  })
  it('has a fingerprint for all that is not met, each its own, and none for what is', () => {
    const { outcomes } = check(
      edited(({ module, item }) => {
        module('week', 3).children.splice(0)
        item('welcome').html = '<p>Welcome aboard.</p>'
      }),
    )
    const open = outcomes.filter(({ outcome }) => outcome !== 'passed')
    expect(open.length).toBeGreaterThan(10)
    expect(new Set(open.map(({ fingerprint }) => fingerprint)).size).toBe(open.length)
    for (const { fingerprint } of open) expect(fingerprint).toMatch(/^\w{8,}$/)
    for (const { outcome, fingerprint, reason } of outcomes)
      if (outcome === 'passed') expect([fingerprint, reason]).toEqual(['', null])
    // Nothing is left undecided.
    expect(outcomes.map(({ outcome }) => outcome)).not.toContain('untested')
  })
  it('asks of a part no more than the part, the rule and the block do', () => {
    const strengthOf = (ofPart: string, ofRule: string) => {
      const example = edited(({ item }) => void (item('assignment', 2).dueAt = null))
      for (const part of example.template.parts)
        if (part.kind === 'module')
          for (const item of part.items)
            if (item.key === 'assignment') Object.assign(item, { strength: ofPart })
      Object.assign(example.template, {
        policies: [{ rule: 'due-missing', off: false, parameters: {}, strength: ofRule }],
      })
      return check(example).findings.find(({ rule }) => rule === 'due-missing')?.strength
    }
    expect(
      [
        ['must', 'must'],
        ['should', 'must'],
        // What may be left out should still be right when it is there.
        ['may', 'must'],
        ['must', 'should'],
        ['must', 'may'],
        ['may', 'may'],
      ].map(([part = '', rule = '']) => strengthOf(part, rule)),
    ).toEqual(['must', 'should', 'should', 'should', 'may', 'may'])
  })
  it('is not ready by being silent: a must is told beside a should about the same', () => {
    // The page says another day than the settings, which are outside the week as well.
    const example = edited(({ item }) => {
      const work = item('assignment', 2)
      work.dueAt = '2026-10-15T03:59:00Z'
      const page = item('welcome')
      page.html = `${page.html ?? ''}<p>${work.name} is due on September 11, 2026.</p>`
    })
    const result = check(example)
    expect(result.findings.map(({ rule, strength }) => `${rule} ${strength}`)).toEqual(
      expect.arrayContaining(['schedule-disagrees must', 'due-outside-module should']),
    )
    expect(result.readiness).toBe('not-ready')
  })
  it('is the same where what a course should be was worked out before, for this course alone', () => {
    const worked = new Map<string, Expectation>()
    const once = (example: ExampleCourse) => checkCourse({ ...example, asOf: '2026-09-16', worked })
    const first = once(exampleCourse())
    expect(worked.size).toBe(1)
    expect(once(exampleCourse())).toEqual(first)
    expect(worked.size).toBe(1)
    const other = exampleCourse()
    other.course.id = 'another'
    once(other)
    expect(worked.size).toBe(2)
  })
})

describe('what is asked of what is not there', () => {
  const told = (result: CheckResult, teller: string) => {
    const [place] = result.findings.find(({ rule }) => rule === teller)?.places ?? []
    return result.outcomes
      .filter(({ toldBy }) => toldBy !== null && toldBy === place?.fingerprint)
      .map(({ rule, outcome }) => `${rule} ${outcome}`)
  }
  it('is not met, and told by the item that is missing', () => {
    const result = check(edited(({ module }) => void module('week', 2).children.shift()))
    expect(result.findings.map(({ rule }) => rule)).toEqual(['item-missing'])
    expect(told(result, 'item-missing')).toContain('item-name failed')
  })
  it('is told by the element of the home page that is missing, and by no other element', () => {
    const gone = (...keys: string[]) =>
      check(
        edited(({ item }) => {
          const home = item('home-page')
          for (const key of keys)
            home.html = (home.html ?? '').replace(
              new RegExp(`<div data-wicker-block="${key}".*?</div>`, 's'),
              '',
            )
        }),
      )
    const result = gone('begin', 'help')
    const places = result.findings
      .filter(({ rule }) => rule === 'home-element-missing')
      .flatMap(({ places }) => places)
    const by = (element: string) =>
      places.find(({ evidence }) => evidence[0]?.text === `no ${element}`)?.fingerprint
    expect(new Set([by('where to begin'), by('help'), undefined]).size).toBe(3)
    const follow = result.outcomes.filter(({ toldBy }) => toldBy !== null)
    expect(follow.map(({ rule, toldBy }) => [rule, toldBy])).toEqual([
      ['begin-link-target', by('where to begin')],
    ])
    expect(gone('help').outcomes.filter(({ toldBy }) => toldBy !== null)).toEqual([])
  })
  it('is told by the home page where there is none', () => {
    const result = check(
      edited((example) => {
        const home = example.item('home-page')
        example.course.homePage = null
        for (const module of example.course.modules)
          module.children = module.children.filter((child) => child !== home)
        example.course.stray = example.course.stray.filter((item) => item !== home)
      }),
    )
    expect(result.findings.map(({ rule }) => rule)).toContain('home-page-set')
    expect(told(result, 'home-page-set')).toContain('fill-in-unfilled failed')
  })
  it('does not apply where the part may be missing', () => {
    const whole = check(exampleCourse())
    const result = check(
      edited(({ module, item }) => {
        const week = module('week', 2)
        week.children = week.children.filter((child) => child !== item('quiz', 2))
      }),
    )
    expect(result.findings).toEqual([])
    expect(result.readiness).toBe('ready')
    expect(result.counts.inapplicable).toBeGreaterThan(whole.counts.inapplicable)
    expect(result.counts.requirements).toBe(result.counts.met)
  })
})
