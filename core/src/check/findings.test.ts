import { describe, expect, it } from 'vitest'
import type { Change } from '../course/index.ts'
import { everyExpected } from '../expand/index.ts'
import { exampleCourse } from '../rules/example/exampleCourse.ts'
import { aboutCourse, aboutPart, rules, type AnyRule, type Subject } from '../rules/index.ts'
import type { Waiver } from './exemption.ts'
import { exampleContext } from './exampleContext.testing.ts'
import { findingFingerprint, findingsOf } from './findings.ts'
import type { OfTemplate } from './ofTemplate.ts'
import type { OpenRequirement } from './openRequirement.ts'
import type { Finding } from './outcome.ts'

const example = exampleCourse()
const context = exampleContext(example)
const partOf = (key: string, week: number) => {
  const part = everyExpected(context.expected.parts).find(
    (part) => part.key === key && part.week?.number === week,
  )
  if (!part) throw new Error(`the example has no ${key} in week ${week}`)
  return part
}
const [anyRule] = rules
if (!anyRule) throw new Error('there are rules')
const rule = (more: Partial<AnyRule> = {}): AnyRule => ({
  ...anyRule,
  id: 'made-up',
  title: 'Knots hold',
  mender: 'instructor',
  effortMinutes: 4,
  messages: { bad: '{name} is bad.', worse: '{name} is worse.' },
  several: undefined,
  mend: undefined,
  ...more,
})
const seen = { kind: 'words', text: 'a granny knot' } as const

interface Told {
  name?: string
  path?: string[]
  week?: number | null
  subject?: Subject
  message?: string
  together?: string
  strength?: 'must' | 'should'
  rule?: AnyRule
  outcome?: Partial<OpenRequirement['outcome']>
}
let made = 0
const open = (told: Told): OpenRequirement => {
  const { name = 'It', week = null, subject = aboutCourse, strength = 'must' } = told
  const said = told.rule ?? rule()
  return {
    rule: said,
    said: 'failed',
    subject,
    discriminator: undefined,
    verdict: {
      outcome: 'failed',
      subject,
      message: told.message ?? 'bad',
      values: { name },
      evidence: [seen],
      expected: 'a reef knot',
      ...(told.together === undefined ? {} : { together: told.together }),
    },
    outcome: {
      rule: said.id,
      fingerprint: `f${++made}`,
      strength,
      outcome: 'failed',
      reason: null,
      toldBy: null,
      place: {
        path: told.path ?? ['Knots', name],
        part: null,
        instance: null,
        week,
        foundId: null,
      },
      ...told.outcome,
    },
  }
}
const findings = (
  told: readonly Told[],
  {
    waivers = [],
    mends = true,
    template = null,
    policies = new Map(),
  }: {
    waivers?: Waiver[]
    mends?: boolean
    template?: OfTemplate | null
    policies?: Parameters<typeof findingsOf>[2]
  } = {},
): Finding[] =>
  findingsOf(told.map(open), context, policies, { waivers, attestations: [] }, mends, template)
const sentence = (told: readonly Told[]): string | undefined => {
  const [finding, ...more] = findings(told)
  expect(more).toEqual([])
  return finding?.message
}

describe('the sentence of a finding', () => {
  const inWeeks = (...weeks: number[]): Told[] =>
    weeks.map((week) => ({ name: `It ${week}`, week }))
  const named = (...names: string[]): Told[] => names.map((name) => ({ name }))
  it.each<[string, Told[], string]>([
    ['one place', named('It'), 'It is bad.'],
    ['another week', inWeeks(4, 6), 'It 4 is bad. The same in week 6.'],
    ['two in a row', inWeeks(4, 6, 7), 'It 4 is bad. The same in weeks 6 and 7.'],
    ['a row and one', inWeeks(4, 5, 6, 7, 9), 'It 4 is bad. The same in weeks 5 – 7 and 9.'],
    [
      'weeks in any order',
      inWeeks(4, 12, 9, 5, 10),
      'It 4 is bad. The same in weeks 5, 9, 10 and 12.',
    ],
    [
      'two of one week, by their names',
      [...inWeeks(4), { name: 'Bend', week: 6 }, { name: 'Hitch', week: 6 }],
      'It 4 is bad. The same in “Bend” and “Hitch”.',
    ],
    [
      'one of them in no week, by their names',
      [...inWeeks(4, 6), { name: 'Hitch' }],
      'It 4 is bad. The same in “It 6” and “Hitch”.',
    ],
    ['three others', named('A', 'B', 'C', 'D'), 'A is bad. The same in “B”, “C” and “D”.'],
    [
      'more than three others',
      named('A', 'B', 'C', 'D', 'E'),
      'A is bad. The same in “B”, “C” and 2 more.',
    ],
    ['one other twice', named('A', 'B', 'B', 'C'), 'A is bad. The same in “B” (2) and “C”.'],
    ['the same place again', named('A', 'A'), 'A is bad. The same once more there.'],
    ['the same place three times', named('A', 'A', 'A'), 'A is bad. The same 2 times more there.'],
    ['the same place, and another', named('A', 'A', 'B'), 'A is bad. The same in “A” and “B”.'],
    ['another place twice', named('A', 'B', 'B'), 'A is bad. The same in “B” (2).'],
  ])('names %s', (_, told, expected) => {
    expect(sentence(told)).toBe(expected)
  })
  it('names a place by itself, not by what it stands in', () => {
    expect(
      sentence([
        { name: 'A', path: ['Deck', 'A'] },
        { name: 'B', path: ['Hold', 'B'] },
      ]),
    ).toBe('A is bad. The same in “B”.')
  })
  it('lists what each place says where the rule has a sentence for several', () => {
    const listing = rule({ several: { message: '{list} are bad.', lists: 'name' } })
    const of = (...names: string[]) => sentence(names.map((name) => ({ name, rule: listing })))
    expect([of('A'), of('A', 'B'), of('A', 'B', 'C')]).toEqual([
      'A is bad.',
      'A and B are bad.',
      'A, B and C are bad.',
    ])
  })
})

describe('places are told together', () => {
  const kinds = (told: Told[]): number[] => findings(told).map(({ places }) => places.length)
  it.each<[string, Told, Told, number[]]>([
    [
      'of one part in two weeks',
      { subject: aboutPart(partOf('quiz', 3)) },
      { subject: aboutPart(partOf('quiz', 4)) },
      [2],
    ],
    [
      'of two parts',
      { subject: aboutPart(partOf('quiz', 3)) },
      { subject: aboutPart(partOf('discussion', 3)) },
      [1, 1],
    ],
    [
      'of two parts that the rule takes together',
      { subject: aboutPart(partOf('quiz', 3)), together: 'all' },
      { subject: aboutPart(partOf('discussion', 3)), together: 'all' },
      [2],
    ],
    [
      'of two things that nobody expects',
      { subject: { about: 'found', id: 'a', name: 'A' } },
      { subject: { about: 'found', id: 'b', name: 'B' } },
      [1, 1],
    ],
    ['with two messages', {}, { message: 'worse' }, [1, 1]],
    ['a must and a should', {}, { strength: 'should' }, [1, 1]],
    ['of two rules', {}, { rule: rule({ id: 'other' }) }, [1, 1]],
  ])('%s, or apart', (_, one, other, expected) => {
    expect(kinds([one, other])).toEqual(expected)
  })
  it('with what it takes to mend them all, and one fingerprint', () => {
    const [finding] = findings([{ together: 'all' }, { together: 'all' }, { together: 'all' }])
    expect(finding).toMatchObject({
      rule: 'made-up',
      title: 'Knots hold',
      effortMinutes: 12,
      fingerprint: findingFingerprint('made-up', 'all'),
    })
    const marks = [
      ['made-up', 'all'],
      ['made-up', 'one'],
      ['other', 'all'],
    ] as const
    expect(new Set(marks.map(([id, together]) => findingFingerprint(id, together))).size).toBe(3)
  })
  it('in order: musts first', () => {
    const order = findings([{ strength: 'should' }, { strength: 'must' }]).map(
      ({ strength }) => strength,
    )
    expect(order).toEqual(['must', 'should'])
  })
  it.each<[string, Told]>([
    ['another finding tells', { outcome: { toldBy: 'f1' } }],
    ['somebody answers for', { outcome: { attestedBy: 'a' } }],
  ])('but not what %s', (_, told) => {
    expect(findings([told])).toEqual([])
  })
})

describe('a place that is waived', () => {
  const waiver: Waiver = {
    id: 'w',
    scope: 'place',
    rule: 'made-up',
    fingerprint: null,
    part: null,
    week: null,
    evidence: null,
    from: '2026-09-01',
    until: '2026-10-01',
    reason: 'agreed',
  }
  const waivedPlace = (evidence: string | null) =>
    findings([{ outcome: { waivedBy: 'w' } }], { waivers: [{ ...waiver, evidence }] })[0]?.places[0]
  it('says by whom it is excused, how long, and whether what is seen has changed since', () => {
    const digest = findings([{}])[0]?.places[0]?.digest ?? ''
    expect(waivedPlace(null)?.waived).toEqual({
      id: 'w',
      reason: 'agreed',
      until: '2026-10-01',
      changedSince: false,
    })
    expect(waivedPlace(digest)?.waived?.changedSince).toBe(false)
    expect(waivedPlace('another')?.waived?.changedSince).toBe(true)
    expect(findings([{}])[0]?.places[0]?.waived).toBeNull()
  })
  it('stands apart from what is not, and from what another waiver excuses', () => {
    const told = findings([{}, { outcome: { waivedBy: 'w' } }, { outcome: { waivedBy: 'v' } }], {
      waivers: [waiver, { ...waiver, id: 'v' }],
    })
    expect(told.map(({ places }) => places[0]?.waived?.id ?? null)).toEqual([null, 'w', 'v'])
  })
})

describe('a mend', () => {
  const { id } = example.item('quiz', 3)
  const renamed: Change[] = [{ change: 'set-item', id, fields: { name: 'Quiz 3' } }]
  const mending = (changes: Change[]) => ({ rule: rule({ mend: () => changes }) })
  const placeOf = (told: Told, mends = true) => findings([told], { mends })[0]?.places[0]
  it('stands beside its place', () => {
    expect(placeOf(mending(renamed))?.mend).toEqual(renamed)
    expect(placeOf(mending(renamed))).not.toHaveProperty('refusal')
  })
  it.each<[string, Told, boolean]>([
    ['the rule knows none', {}, true],
    ['it comes to nothing', mending([]), true],
    ['none is asked for', mending(renamed), false],
  ])('is none where %s', (_, told, mends) => {
    expect(placeOf(told, mends)?.mend).toBeNull()
    expect(placeOf(told, mends)).not.toHaveProperty('refusal')
  })
  it('that is not to be had says why', () => {
    const emptied = { ...example.item('week-overview', 3) }
    const place = placeOf(
      mending([{ change: 'set-item', id: emptied.id, fields: { html: '<p>Nothing</p>' } }]),
    )
    expect([place?.mend, place?.refusal]).toEqual([
      null,
      { code: 'own-words', name: 'Week 3 overview' },
    ])
  })
})

describe('who is to mend it', () => {
  const own: OfTemplate = {
    isOwn: (_rule, { path }) => path.at(-1) === 'Ours',
    holds: () => ({ from: null, until: null }),
  }
  it('is whoever teaches the course, or designs the template where it is the template’s own', () => {
    const told = findings([{ name: 'Theirs' }, { name: 'Ours' }], { template: own })
    expect(told.map(({ mender, owner, ofTemplate }) => [mender, owner, ofTemplate])).toEqual([
      ['instructor', 'sunniva.drake@kestrelsound.example', undefined],
      ['designer', null, true],
    ])
    expect(findings([{}])[0]).not.toHaveProperty('ofTemplate')
  })
  it('is nobody of the course where the rule says who it is', () => {
    const byDesigner = rule({ mender: 'designer' })
    const [finding] = findings([{ name: 'Ours', rule: byDesigner }], { template: own })
    expect(finding).toMatchObject({ mender: 'designer', owner: null })
    expect(finding).not.toHaveProperty('ofTemplate')
  })
})

it('what it rests on is what the policy says, or else the part', () => {
  const part = partOf('quiz', 3)
  const based = { ...part, definition: { ...part.definition, basis: 'Senate 12' } }
  const policy = { ...example.template.policies[0], basis: 'Handbook 4' } as never
  const basisOf = (subject: Subject, policies?: Map<string, never>) =>
    findings([{ subject }], policies ? { policies } : {})[0]?.basis
  expect([
    basisOf(aboutCourse),
    basisOf(aboutPart(part)),
    basisOf(aboutPart(based)),
    basisOf(aboutPart(based), new Map([['made-up', policy]])),
    basisOf(aboutPart(based), new Map([['other', policy]])),
  ]).toEqual([null, null, 'Senate 12', 'Handbook 4', 'Senate 12'])
})
