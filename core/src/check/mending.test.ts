import { describe, expect, it } from 'vitest'
import { everyCourseItem } from '../course/index.ts'
import { exampleCourse } from '../rules/example/exampleCourse.ts'
import { gradedTemplate } from '../rules/example/gradedTemplate.ts'
import type { ExampleCourse } from '../rules/index.ts'
import { waiver } from './edited.testing.ts'
import { checkCourse, mendCourse, pageDifference, type Check, type CheckResult } from './index.ts'

const check = (example: ExampleCourse, more: Partial<Check> = {}): CheckResult => {
  const result = checkCourse({ ...example, asOf: '2026-09-16', ...more })
  if (!result.ok) throw new Error(JSON.stringify(result.problems))
  return result.value
}
const spoilt = (): ExampleCourse => {
  const example = exampleCourse()
  example.module('week', 3).name = 'wk 3'
  example.module('week', 4).name = 'wk 4'
  return example
}
const places = (result: CheckResult) => result.findings.flatMap((finding) => finding.places)

describe('waivers', () => {
  it('excuse one place, or the rule in the whole course, and leave the rest open', () => {
    const plain = check(spoilt())
    const first = places(plain)[0]
    const checked = check(spoilt(), {
      exemptions: {
        waivers: [waiver({ fingerprint: first?.fingerprint ?? '' })],
        attestations: [],
      },
    })
    expect([
      checked.counts.waived,
      checked.counts.openShoulds,
      checked.counts.requirements,
    ]).toEqual([1, 1, plain.counts.requirements - 1])
    expect(
      places(checked)
        .map((place) => place.waived?.reason ?? null)
        .sort(),
    ).toEqual(['agreed', null])
    const all = check(spoilt(), {
      exemptions: { waivers: [waiver({ scope: 'rule' })], attestations: [] },
    })
    expect([all.counts.waived, all.counts.openShoulds, all.readiness]).toEqual([2, 0, 'ready'])
  })
  it('hold from their first to their last day, and the result says until when', () => {
    const during = (asOf: string) =>
      check(spoilt(), {
        asOf,
        exemptions: {
          waivers: [waiver({ scope: 'rule', from: '2026-09-10', until: '2026-09-20' })],
          attestations: [],
        },
      })
    expect(during('2026-09-09').counts.waived).toBe(0)
    expect(during('2026-09-20').counts.waived).toBe(2)
    expect(during('2026-09-21').counts.waived).toBe(0)
    expect(during('2026-09-16').holds.until).toBe('2026-09-21')
  })
  it('stay when the evidence changes, and say so', () => {
    const first = places(check(spoilt()))[0]
    const changed = spoilt()
    changed.module('week', 3).name = 'third week'
    const result = check(changed, {
      exemptions: {
        waivers: [waiver({ fingerprint: first?.fingerprint ?? '', evidence: first?.digest ?? '' })],
        attestations: [],
      },
    })
    expect(places(result).find((place) => place.waived)?.waived?.changedSince).toBe(true)
  })
})

describe('attestations', () => {
  it('answer for what the snapshot cannot show', () => {
    const example = exampleCourse(gradedTemplate())
    const tool = check(example).findings.find((finding) => finding.rule === 'tool-not-attested')
      ?.places[0]
    const attested = check(example, {
      exemptions: {
        waivers: [],
        attestations: [
          {
            id: 'a',
            rule: 'tool-not-attested',
            fingerprint: tool?.fingerprint ?? '',
            by: 'sunniva.drake@kestrelsound.example',
            on: '2026-09-10',
            until: '2026-10-23',
            words: 'paired',
          },
        ],
      },
    })
    expect([
      attested.counts.attested,
      attested.findings.some((finding) => finding.rule === 'tool-not-attested'),
    ]).toEqual([1, false])
  })
})

describe('“not this week”', () => {
  const without = (...weeks: number[]): ExampleCourse => {
    const example = exampleCourse()
    for (const part of example.template.parts)
      if (part.kind === 'module')
        for (const item of part.items)
          if (item.key === 'discussion')
            Object.assign(item, { may: { remove: true }, acceptsInstead: [] })
    for (const week of weeks) {
      const module = example.module('week', week)
      module.children = module.children.filter((item) => item !== example.item('discussion', week))
    }
    return example
  }
  it('is asked of what may go, and answered by the instructor’s word', () => {
    const asked = check(without(2))
    expect(asked.findings.map((finding) => [finding.rule, finding.strength])).toEqual([
      ['item-missing', 'should'],
    ])
    expect(check(without(2), { notThisWeek: asked.missing }).findings).toEqual([])
  })
  it('has a quota for the course, a quarter of the weeks', () => {
    const { missing } = check(without(1, 2, 3))
    const over = check(without(1, 2, 3), { notThisWeek: missing })
    expect(over.findings.map((finding) => finding.message)).toEqual([
      '3 of 7 weeks are marked “not this week”; up to 1 are allowed without asking.',
    ])
  })
})

describe('mending a course', () => {
  it('makes several mends of one page and one module hold together, and leaves nothing that it knows to mend', () => {
    const example = spoilt()
    example.item('week-overview', 3).html +=
      '<div data-wicker-block="advice"><p><strong>Note to the instructor.</strong></p><p>A short recording of yourself works well here.</p></div>'
    example.item('welcome').html = (example.item('welcome').html ?? '').replace(
      'Call 5500.',
      'Call 4400.',
    )
    example.module('week', 2).children.pop()
    example.item('assignment', 2).dueAt = null
    Object.assign(example.item('staff-notes'), { staffOnly: false, published: true })
    const mended = mendCourse({ ...example, asOf: '2026-09-16' }, () => true)
    if (!mended.ok) throw new Error('it can be checked')
    expect(mended.value.before.findings.length).toBeGreaterThan(5)
    expect(places(mended.value.after).filter((place) => place.mend)).toEqual([])
    expect(mended.value.left).toEqual([])
    expect(mended.value.mended.map(({ rule }) => rule)).toEqual(
      expect.arrayContaining([
        'module-name',
        'guidance-visible',
        'house-text-outdated',
        'item-missing',
        'due-missing',
        'staff-part-visible',
      ]),
    )
  })
  it('touches nothing that was not chosen, and nothing an instructor wrote', () => {
    const example = spoilt()
    const before = structuredClone(example.course)
    const mended = mendCourse(
      { ...example, asOf: '2026-09-16' },
      (_, place) => place.place.week === 3,
    )
    if (!mended.ok) throw new Error('it can be checked')
    expect(mended.value.changes).toHaveLength(1)
    expect(
      mended.value.course.modules.map((module) => module.name).filter((name) => name === 'wk 4'),
    ).toHaveLength(1)
    expect(everyCourseItem(mended.value.course).map(({ item }) => item.html)).toEqual(
      everyCourseItem(before).map(({ item }) => item.html),
    )
  })
})

describe('the difference of a page', () => {
  it('tells each block where it stands, with the words that changed, and gives the page back whole', () => {
    const example = exampleCourse()
    const item = example.item('welcome')
    item.html = `<p>My own line.</p>${(item.html ?? '').replace('by Friday', 'by Sunday').replace('Call 5500.', 'Call 4400.')}`
    const difference = pageDifference({ ...example, asOf: '2026-09-16' }, item.id)
    if (!difference.ok || !difference.value) throw new Error('there is such a page')
    const { stretches, missing } = difference.value
    expect(stretches.map(({ html }) => html).join('')).toBe(item.html)
    expect(stretches.flatMap(({ block }) => (block ? [[block.key, block.state]] : []))).toEqual([
      ['hello', 'filled'],
      ['promise', 'altered'],
      ['muster', 'outdated'],
    ])
    expect(
      stretches
        .find(({ block }) => block?.key === 'promise')
        ?.block?.difference.filter((run) => run.change !== 'same')
        .map((run) => run.text),
    ).toEqual(['Friday', 'Sunday'])
    expect(missing).toEqual([])
  })
  it('tells a block that is gone, and is the same where the platform stripped its markers', () => {
    const example = exampleCourse()
    const item = example.item('welcome')
    item.html = (item.html ?? '')
      .replace(/<div data-wicker-block="promise".*?<\/div>/s, '')
      .replace(/ data-wicker-[a-z]+="[^"]*"/g, '')
    const difference = pageDifference({ ...example, asOf: '2026-09-16' }, item.id)
    expect(
      difference.ok && difference.value?.missing.map((block) => [block.key, block.state]),
    ).toEqual([['promise', 'missing']])
  })
  it('is nothing for a page that is not there', () => {
    const difference = pageDifference({ ...exampleCourse(), asOf: '2026-09-16' }, 'no-such-item')
    expect(difference).toMatchObject({ ok: true, value: null })
  })
})
