import * as fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { canonicalJson, readDocument } from '../document/index.ts'
import { firstHouseStyle } from '../houseStyle/index.ts'
import { expandCourse } from '../expand/index.ts'
import { exampleFacts, exampleTemplate } from '../rules/example/exampleCourse.ts'
import { applyEdit, everyPart, isModule, Template, type TemplateEdit } from '../template/index.ts'
import { newLayer, takeOver, weakenings } from './index.ts'

const upper = exampleTemplate()
const edited = (template: Template, ...edits: TemplateEdit[]): Template =>
  edits.reduce((now, edit) => {
    const next = applyEdit(now, edit)
    if (!next.ok) throw new Error(JSON.stringify(next.problems))
    return next.value.template
  }, template)
const valid = (template: Template): Template => {
  const read = readDocument(Template, template)
  if (!read.ok) throw new Error(JSON.stringify(read.problems))
  return read.value
}
const layer = newLayer(upper, 'programme', 'Navigation programme')
const page = (key: string, name: string) => ({
  kind: 'page' as const,
  key,
  name,
  strength: 'should' as const,
  audience: 'students' as const,
  position: 'in-order' as const,
  span: 'module' as const,
  may: {},
  settings: {},
  blocks: [],
  acceptsInstead: [],
  inGroup: 'per-unit' as const,
  assesses: [],
})
const fixed = (key: string, html: string) => ({
  kind: 'fixed-text' as const,
  key,
  strength: 'must' as const,
  html,
})
const ownEdits: TemplateEdit[] = [
  { edit: 'add-part', parent: 'week', at: 1, part: page('chart-work', 'Week {week} chart work') },
  { edit: 'add-part', parent: null, at: 1, part: page('folio', 'Chart folio') },
  {
    edit: 'add-block',
    part: 'welcome',
    at: 1,
    block: fixed('bridge', '<p>Bring dividers to every class.</p>'),
  },
  {
    edit: 'set-block',
    part: 'week-overview',
    block: 'about',
    field: 'answer',
    was: null,
    value: '<p>Answered by the programme.</p>',
  },
  { edit: 'set-field', part: 'quiz', field: ['strength'], was: 'may', value: 'must' },
  { edit: 'set-field', part: 'discussion', field: ['settings', 'points'], was: null, value: 5 },
]
const built = edited(layer, ...ownEdits)

/** A version above that leaves a text to the instructor in one of the ways. */
const leaving = (as: 'proposed' | 'asked', more: object = {}): Template => {
  const template = structuredClone(upper)
  const welcome = everyPart(template).find(({ key }) => key === 'welcome')
  if (!welcome || isModule(welcome)) throw new Error('no welcome')
  welcome.blocks.push({
    kind: 'checklist',
    key: 'left',
    strength: 'must',
    label: 'To bring',
    lines: ['Say what they bring'],
    left: { as },
    ...more,
  })
  return valid(template)
}
const onLeft = (field: string, was: unknown, value: unknown): TemplateEdit => ({
  edit: 'set-block',
  part: 'welcome',
  block: 'left',
  field,
  was,
  value,
})
const leftIn = (template: Template) => {
  const welcome = everyPart(template).find(({ key }) => key === 'welcome')
  return welcome && !isModule(welcome)
    ? welcome.blocks.find(({ key }) => key === 'left')
    : undefined
}

describe('what the version above leaves to the instructor', () => {
  it.each(['proposed', 'asked'] as const)('(%s) may be said by a layer in their place', (as) => {
    const above = leaving(as)
    const said = edited(
      newLayer(above, 'programme', 'Programme'),
      onLeft('lines', ['Say what they bring'], ['Dividers', 'A pencil']),
      onLeft('left', { as }, null),
    )
    expect(weakenings(above, said)).toEqual([])
  })
  it('stays asked for where the layer says nothing in its place, and keeps its kind', () => {
    const above = leaving('asked')
    const own = newLayer(above, 'programme', 'Programme')
    for (const way of [null, { as: 'proposed' }])
      expect(weakenings(above, edited(own, onLeft('left', { as: 'asked' }, way)))).toMatchObject([
        { code: 'weakened' },
      ])
    expect(weakenings(above, edited(own, onLeft('strength', 'must', 'may')))).toHaveLength(1)
  })
  it('keeps the layer’s words when a newer version is taken over, unless that one fixes its own', () => {
    const above = leaving('asked')
    const said = edited(
      newLayer(above, 'programme', 'Programme'),
      onLeft('lines', ['Say what they bring'], ['Dividers', 'A pencil']),
      onLeft('left', { as: 'asked' }, null),
    )
    const kept = takeOver(above, leaving('asked', { lines: ['Another question'] }), said)
    expect(leftIn(kept.template)).toMatchObject({ lines: ['Dividers', 'A pencil'] })
    expect(kept.notes).toEqual([])
    const fixing = leaving('asked', { lines: ['A lamp'], left: undefined })
    const overruled = takeOver(above, fixing, said)
    expect(leftIn(overruled.template)).toMatchObject({ lines: ['A lamp'] })
    expect(overruled.notes).toEqual([{ code: 'answer-overruled', part: 'welcome', what: 'left' }])
    expect(weakenings(fixing, overruled.template)).toEqual([])
  })
})

describe('a layer', () => {
  it('adds, answers, raises and says what was left unsaid, without weakening', () => {
    expect(weakenings(upper, layer)).toEqual([])
    expect(weakenings(upper, built)).toEqual([])
  })
  const refused: [string, TemplateEdit, string][] = [
    [
      'lowering a must',
      { edit: 'set-field', part: 'welcome', field: ['strength'], was: 'must', value: 'should' },
      '/parts/0/items/0/strength',
    ],
    [
      'altering fixed text',
      {
        edit: 'set-block',
        part: 'welcome',
        block: 'promise',
        field: 'html',
        was: '<p>You will have an answer to every question by Friday of the same week.</p>',
        value: '<p>Perhaps.</p>',
      },
      '/parts/0/items/0/blocks/1/html',
    ],
    ['taking a part away', { edit: 'remove-part', part: 'checklist' }, '/parts/1/items'],
    [
      'moving a part elsewhere',
      { edit: 'move-part', part: 'quiz', parent: 'casting-off', at: 0 },
      '/parts/1/items',
    ],
    [
      'putting parts in another order',
      { edit: 'move-part', part: 'week', parent: null, at: 0 },
      '/parts',
    ],
    [
      'taking a block away',
      { edit: 'remove-block', part: 'welcome', block: 'hello' },
      '/parts/0/items/0/blocks',
    ],
    [
      'allowing what is not allowed',
      { edit: 'set-field', part: 'assignment', field: ['may', 'remove'], was: null, value: true },
      '/parts/1/items/2/may/remove',
    ],
    [
      'other points',
      { edit: 'set-field', part: 'assignment', field: ['settings', 'points'], was: 100, value: 50 },
      '/parts/1/items/2/settings/points',
    ],
    [
      'another name',
      {
        edit: 'set-field',
        part: 'week',
        field: ['name'],
        was: 'Week {week} · {dates} · {topic}',
        value: 'W{week}',
      },
      '/parts/1/name',
    ],
    [
      'another label',
      {
        edit: 'set-field',
        part: null,
        field: ['naming', 'courseLabel'],
        was: '{code}',
        value: '{title}',
      },
      '/naming',
    ],
    [
      'an exception that leaves out',
      {
        edit: 'set-field',
        part: 'week',
        field: ['exceptions'],
        was: [],
        value: [
          { key: 'x', anchor: { at: 'first' }, omit: false, leaveOut: ['quiz'], set: [], add: [] },
        ],
      },
      '/parts/1/exceptions/0',
    ],
  ]
  it.each(refused)('is refused %s', (_, edit, path) => {
    expect(weakenings(upper, edited(layer, edit)).map(({ path }) => path)).toEqual([path])
  })
  it('becomes a course with what stands above and what it adds', () => {
    const expansion = expandCourse({ template: built, facts: exampleFacts(), mintFrom: 'layer' })
    if (!expansion.ok) throw new Error('it fits')
    expect(expansion.value.parts[2]?.items.map((part) => part.name)).toContain('Week 1 chart work')
    expect(
      expansion.value.parts[2]?.items.find((part) => part.key === 'week-overview')?.blocks[0],
    ).toMatchObject({ html: '<p>Answered by the programme.</p>' })
  })
})

describe('taking over a newer version from above', () => {
  const newer: Template = valid({
    ...edited(
      upper,
      {
        edit: 'set-block',
        part: 'welcome',
        block: 'promise',
        field: 'html',
        was: '<p>You will have an answer to every question by Friday of the same week.</p>',
        value: '<p>You will have an answer within two days.</p>',
      },
      { edit: 'add-part', parent: 'week', at: 0, part: page('muster', 'Week {week} muster') },
      { edit: 'remove-part', part: 'discussion' },
      {
        edit: 'set-field',
        part: 'assignment',
        field: ['name'],
        was: '{code} · Assignment {number}: {topic}',
        value: '{code} Task {number}',
      },
    ),
    version: 2,
  })
  const { template, notes } = takeOver(upper, newer, built)
  it('keeps the layer’s own and brings the new, weakening nothing', () => {
    expect(valid(template).extends).toEqual({ template: 'example-standard', version: 2 })
    expect(weakenings(newer, template)).toEqual([])
    expect(notes).toEqual([])
    const week = template.parts.find((part) => part.key === 'week')
    expect(week && isModule(week) && week.items.map((part) => part.key)).toEqual([
      'muster',
      'week-overview',
      'chart-work',
      'assignment',
      'quiz',
      'checklist',
    ])
    expect(template.parts.map((part) => part.key)).toEqual(['casting-off', 'folio', 'week'])
    const welcome = everyPart(template).find((part) => part.key === 'welcome')
    expect(welcome && !isModule(welcome) && welcome.blocks.map((block) => block.key)).toEqual([
      'hello',
      'bridge',
      'promise',
      'muster',
    ])
    expect(everyPart(template).find((part) => part.key === 'quiz')?.strength).toBe('must')
    expect(canonicalJson(template)).toContain('Answered by the programme.')
    expect(canonicalJson(template)).toContain('within two days')
  })
  it('tells what of the layer lost its place or its say', () => {
    const gone = takeOver(upper, edited(newer, { edit: 'remove-part', part: 'week' }), built)
    expect(gone.notes).toEqual([{ code: 'place-gone', part: 'chart-work', what: null }])
    expect(valid(gone.template).parts.map((part) => part.key)).toEqual([
      'casting-off',
      'folio',
      'chart-work',
    ])
    const taken = takeOver(
      upper,
      edited(
        upper,
        { edit: 'add-part', parent: null, at: 0, part: page('folio', 'Another folio') },
        {
          edit: 'set-field',
          part: 'discussion',
          field: ['settings', 'points'],
          was: null,
          value: 20,
        },
      ),
      built,
    )
    expect(taken.notes).toEqual([
      { code: 'answer-overruled', part: 'discussion', what: 'points' },
      { code: 'key-taken', part: 'folio', what: null },
    ])
  })
  it('brings its house style to a layer that has no other, and leaves a layer its own', () => {
    const above = { ...upper, houseStyle: firstHouseStyle }
    const plain = { ...firstHouseStyle, headings: 'plain' as const }
    const styled = (layer: Template, houseStyle: Template['houseStyle']): Template => ({
      ...layer,
      houseStyle,
    })
    const recoloured = { ...newer, houseStyle: plain }
    const follows = styled(built, firstHouseStyle)
    expect(takeOver(above, recoloured, follows).template.houseStyle).toEqual(plain)
    const own = styled(built, { ...firstHouseStyle, corners: 'round' })
    expect(takeOver(above, recoloured, own).template.houseStyle).toEqual(own.houseStyle)
    expect(takeOver(upper, recoloured, built).template.houseStyle).toEqual(plain)
    expect(weakenings(above, own)).toEqual([])
  })
  it('of the same version changes nothing, whatever the layer added (property)', () => {
    fc.assert(
      fc.property(fc.subarray([0, 1, 2, 3, 4, 5]), (chosen) => {
        const some = edited(layer, ...chosen.map((i) => ownEdits[i] as TemplateEdit))
        expect(canonicalJson(valid(takeOver(upper, upper, some).template))).toBe(
          canonicalJson(valid(some)),
        )
      }),
    )
  })
})
