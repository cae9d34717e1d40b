import { describe, expect, it } from 'vitest'
import { exampleTemplate } from '../rules/example/exampleCourse.ts'
import type { TemplateEdit } from '../template/index.ts'
import { edited } from './edited.testing.ts'
import { compareTemplates } from './index.ts'

const told = (...edits: TemplateEdit[]) =>
  compareTemplates(exampleTemplate(), edited(...edits)).map(({ of, words }) => `${of}: ${words}`)

describe('comparing two versions', () => {
  it('says nothing of what is the same', () => {
    expect(compareTemplates(exampleTemplate(), exampleTemplate())).toEqual([])
  })
  it('tells a move once, by the fewest parts that were moved', () => {
    expect(told({ edit: 'move-part', part: 'week-overview', parent: 'week', at: 4 })).toEqual([
      'Week {week} overview: moved last',
    ])
    expect(told({ edit: 'move-part', part: 'checklist', parent: 'week', at: 0 })).toEqual([
      'Week {week} checklist: moved first',
    ])
    expect(told({ edit: 'move-part', part: 'quiz', parent: 'casting-off', at: 1 })).toEqual([
      '{code} · Quiz {number}: {topic}: moved from Week {week} · {dates} · {topic} to Start here',
    ])
  })
  it('tells in words how a block is left to the instructor', () => {
    const left = (was: unknown, value: unknown): TemplateEdit => ({
      edit: 'set-block',
      part: 'welcome',
      block: 'promise',
      field: 'left',
      was,
      value,
    })
    expect(told(left(null, { as: 'proposed' }))).toEqual([
      expect.stringMatching(/: left to the instructor as a proposal$/),
    ])
  })
  it('tells a changed strength, repeat, date and permission in words', () => {
    expect(
      told({
        edit: 'set-field',
        part: 'discussion',
        field: ['strength'],
        was: 'must',
        value: 'may',
      }),
    ).toEqual(['{code} · Discussion {week}: {topic}: now may'])
    expect(
      told({
        edit: 'set-field',
        part: 'assignment',
        field: ['repeat'],
        was: { per: 'week', every: 2, except: [] },
        value: { per: 'week', every: 1, from: 2, to: 7, except: [5] },
      }),
    ).toEqual([
      '{code} · Assignment {number}: {topic}: repeats even weeks, now each week, 2 to 7, not 5',
    ])
    expect(
      told({
        edit: 'set-field',
        part: 'quiz',
        field: ['settings', 'due'],
        was: { from: 'week-end', days: 0, time: '23:59' },
        value: null,
      }),
    ).toEqual(['{code} · Quiz {number}: {topic}: due the last day of its week at 23:59 no longer'])
    expect(
      told({ edit: 'set-field', part: 'quiz', field: ['may', 'remove'], was: null, value: true }),
    ).toEqual(['{code} · Quiz {number}: {topic}: instructors may now remove it'])
  })
  it('shows changed text word by word', () => {
    const [change] = compareTemplates(
      exampleTemplate(),
      edited({
        edit: 'set-block',
        part: 'welcome',
        block: 'promise',
        field: 'html',
        was: '<p>You will have an answer to every question by Friday of the same week.</p>',
        value:
          '<p>You will have an answer to every question by <b>Monday</b> of the next week.</p>',
      }),
    )
    expect(
      change?.text
        ?.filter((run) => run.change !== 'same')
        .map((run) => `${run.change} ${run.text}`),
    ).toEqual(['gone Friday', 'new Monday', 'gone same', 'new next'])
  })
  it('tells a part that is new or gone once, not with everything in it', () => {
    expect(told({ edit: 'remove-part', part: 'week' })).toEqual([
      'Week {week} · {dates} · {topic}: taken out of the template',
    ])
    expect(
      told({
        edit: 'add-part',
        parent: 'week',
        at: 5,
        part: {
          ...(exampleTemplate().parts[1] as never as object),
          key: 'day',
          repeat: undefined,
          items: [],
          exceptions: [],
        } as never,
      }),
    ).toEqual(['Week {week} · {dates} · {topic}: added, last in Week {week} · {dates} · {topic}'])
  })
})
