import { describe, expect, it } from 'vitest'
import { addDays } from '../calendar/index.ts'
import { attestationFor, waiverFor, type Attestation, type Waiver } from './exemption.ts'

const on = (day: string) => ({
  reached: (date: string) => date <= day,
  dayAfter: (date: string) => addDays(date, 1),
})
const waiver = (id: string, more: Partial<Waiver> = {}): Waiver => ({
  id,
  scope: 'place',
  rule: 'names-follow',
  fingerprint: 'here',
  part: null,
  week: null,
  evidence: null,
  from: '2026-09-10',
  until: '2026-09-20',
  reason: 'Agreed',
  ...more,
})
const attestation = (id: string, more: Partial<Attestation> = {}): Attestation => ({
  id,
  rule: 'captions',
  fingerprint: 'here',
  by: 'sunniva.drake@kestrelsound.example',
  on: '2026-09-10',
  until: '2026-10-23',
  words: 'I looked',
  ...more,
})

describe('a waiver', () => {
  const excuses = (
    waivers: Waiver[],
    { rule = 'names-follow', at = 'here', part = 'quiz', week = 3, day = '2026-09-16' } = {},
  ) => waiverFor(waivers, { rule, fingerprint: at, place: { part, week } }, on(day))?.id ?? null
  const ofPart = (more: Partial<Waiver> = {}) =>
    waiver('1', { scope: 'part', fingerprint: null, part: 'quiz', ...more })
  it.each<[what: string, given: Waiver, asked: object, excused: boolean]>([
    ['its own place', waiver('1'), {}, true],
    ['no other place', waiver('1'), { at: 'there' }, false],
    ['no other rule', waiver('1'), { rule: 'another' }, false],
    [
      'every place of a rule, where it is of the rule',
      waiver('1', { scope: 'rule', fingerprint: null }),
      { at: 'there' },
      true,
    ],
    [
      'no other rule, where it is of a rule',
      waiver('1', { scope: 'rule', fingerprint: null }),
      { rule: 'another' },
      false,
    ],
    ['its rule at a part, in every week', ofPart(), { at: 'there', week: 9 }, true],
    ['no other rule at a part, where it is of one', ofPart(), { rule: 'another' }, false],
    ['whatever is wrong at a part', ofPart({ rule: null }), { rule: 'another' }, true],
    ['no other part', ofPart({ rule: null }), { part: 'page' }, false],
    ['a part in its week', ofPart({ week: 3 }), {}, true],
    ['a part in no other week', ofPart({ week: 3 }), { week: 4 }, false],
    ['nothing, where it names no part', ofPart({ part: null, rule: null }), {}, false],
    ['nothing, where it is of a place and names no rule', waiver('1', { rule: null }), {}, false],
    ['nothing before its first day', waiver('1'), { day: '2026-09-09' }, false],
    ['from its first day', waiver('1'), { day: '2026-09-10' }, true],
    ['up to its last day', waiver('1'), { day: '2026-09-20' }, true],
    ['nothing after its last day', waiver('1'), { day: '2026-09-21' }, false],
    ['without end, where it has none', waiver('1', { until: null }), { day: '2030-01-01' }, true],
  ])('excuses %s', (_, given, asked, excused) => {
    expect(excuses([given], asked)).toBe(excused ? '1' : null)
  })
  it('is the narrowest of several, whatever their order; of equal ones the first given', () => {
    const all = [
      waiver('1', { scope: 'rule', fingerprint: null }),
      waiver('3'),
      waiver('2'),
      waiver('4', { scope: 'evidence' }),
    ]
    for (const order of [all, all.toReversed()]) {
      expect(excuses(order)).toBe('4')
      expect(excuses(order.filter(({ id }) => id !== '4'))).toBe('2')
      expect(excuses(order.filter(({ scope }) => scope === 'rule'))).toBe('1')
    }
  })
  it('is none where none was given', () => {
    expect(excuses([])).toBeNull()
  })
})

describe('somebody’s word', () => {
  const speaks = (
    all: Attestation[],
    { rule = 'captions', at = 'here', day = '2026-09-16' } = {},
  ) => attestationFor(all, rule, at, on(day))?.id ?? null
  it.each<[what: string, asked: object, speaks: boolean]>([
    ['what it was given for', {}, true],
    ['no other place', { at: 'there' }, false],
    ['no other rule', { rule: 'another' }, false],
    ['nothing before it was given', { day: '2026-09-09' }, false],
    ['up to the end of the term', { day: '2026-10-23' }, true],
    ['nothing after it', { day: '2026-10-24' }, false],
  ])('speaks for %s', (_, asked, does) => {
    expect(speaks([attestation('1')], asked)).toBe(does ? '1' : null)
  })
  it('is the latest of several, whatever their order', () => {
    const all = [
      attestation('old', { on: '2026-09-01' }),
      attestation('new', { on: '2026-09-15' }),
      attestation('middle', { on: '2026-09-10' }),
      attestation('to come', { on: '2026-09-17' }),
    ]
    for (const order of [all, all.toReversed()]) expect(speaks(order)).toBe('new')
  })
})
