import * as fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { acts, firstVersion, templateChanges } from '../plan/generated.testing.ts'
import { exampleTemplate } from '../rules/example/exampleCourse.ts'
import { gradedTemplate } from '../rules/example/gradedTemplate.ts'
import { everyItem, everyPart, type Template, type TemplateEdit } from '../template/index.ts'
import { propertyRuns } from '../testing/propertyRuns.testing.ts'
import { edited } from './edited.testing.ts'
import { compareTemplates } from './index.ts'

/** Fields whose value is a key, or a list of keys. */
const keyed = new Set(
  'key part to image houseText kept assesses serves rubric leaveOut extends'.split(' '),
)
const mark = 'qz9'
/** The same template under keys that nobody would take for words. */
const strangelyKeyed = (template: Template): Template => {
  const strange = (value: unknown, field: string): unknown =>
    typeof value === 'string'
      ? keyed.has(field)
        ? `${value}-${mark}`
        : value
      : Array.isArray(value)
        ? value.map((one) => strange(one, field))
        : typeof value === 'object' && value !== null
          ? Object.fromEntries(
              Object.entries(value).map(([name, one]) => [name, strange(one, name)]),
            )
          : value
  return strange(template, '') as Template
}

/** What designers do besides, to what a template lists and to how its parts are judged. */
const listChanges: Record<string, (template: Template, n: number) => void> = {
  ...templateChanges,
  'another weight': ({ grading }, n) => {
    const category = grading.categories[n % Math.max(1, grading.categories.length)]
    if (category) Object.assign(category, { weight: n % 100, counts: n % 2 === 0 })
  },
  'another category': (template, n) => {
    const work = everyItem(template).filter(({ settings }) => settings.points !== undefined)
    const item = work[n % Math.max(1, work.length)]
    const category =
      template.grading.categories[n % Math.max(1, template.grading.categories.length)]
    if (item) item.settings = { ...item.settings, category: category?.name ?? undefined }
  },
  'something else is assessed': (template, n) => {
    const item = everyItem(template)[n % everyItem(template).length]
    if (item) item.assesses = template.outcomes.slice(0, 1 + (n % 2)).map(({ key }) => key)
  },
  'an outcome in other words': ({ outcomes }, n) => {
    const outcome = outcomes[n % Math.max(1, outcomes.length)]
    if (outcome) outcome.text = `Steer by ${n} stars`
  },
  'a house text in other words': ({ houseTexts }, n) => {
    const text = houseTexts[n % Math.max(1, houseTexts.length)]
    const last = text?.revisions.at(-1)
    if (last) last.html = `<p>Said <b>otherwise</b>, ${n} times.</p>`
  },
  'a week that differs': (template, n) => {
    const week = template.parts[1]
    const inside = week && 'items' in week ? week.items[n % week.items.length] : undefined
    if (week && 'exceptions' in week && inside)
      week.exceptions.push({
        key: `ex-${n}-${mark}`,
        anchor: { at: 'first' },
        omit: false,
        leaveOut: n % 2 === 0 ? [inside.key] : [],
        set: n % 2 === 0 ? [] : [{ part: inside.key, strength: 'may' }],
        add: [],
      })
  },
  'a signpost elsewhere': (template, n) => {
    const parts = everyPart(template)
    for (const block of template.home.blocks)
      if (block.kind === 'signposts')
        block.links = [{ text: 'Go on', to: parts[n % parts.length]?.key ?? '' }]
  },
  'a fill-in with an answer and an example': (template, n) => {
    for (const block of everyItem(template).flatMap(({ blocks }) => blocks))
      if (block.kind === 'fill-in')
        Object.assign(block, {
          example: `<p>As <b>here</b> ${n}</p>`,
          answer: n % 2 === 0 ? '<p>Said</p>' : undefined,
        })
  },
  'a rule is off': (template, n) =>
    void template.policies.push({
      rule: ['alt-missing', 'fill-in-unfilled'][n % 2] ?? '',
      off: n % 3 === 0,
      parameters: {},
    }),
}

describe('what is told of a new version', () => {
  it('names everything as people do: no key, no tag, no name of a field; and whatever changed is told', () => {
    fc.assert(
      fc.property(
        fc.constantFrom('example' as const, 'graded' as const),
        acts(listChanges, 4),
        (which, made) => {
          const first = strangelyKeyed(which === 'example' ? firstVersion(true) : gradedTemplate())
          const second = structuredClone(first)
          for (const { name, n } of made) listChanges[name]?.(second, n)
          const told = compareTemplates(first, second)
          if (JSON.stringify(first) !== JSON.stringify(second)) expect(told).not.toEqual([])
          for (const { words, of, text } of told) {
            const said = [of, words, ...(text ?? []).map((run) => run.text)].join(' ')
            expect(said).not.toMatch(new RegExp(mark))
            expect(said).not.toMatch(/<\/?[a-z]+[ >]|undefined|\[object|null|\b[a-z]+[A-Z][a-z]+\b/)
          }
        },
      ),
      propertyRuns(),
    )
  })
  it('finds every single edit ', () => {
    const edits: TemplateEdit[] = [
      { edit: 'set-field', part: null, field: ['title'], was: 'Example Standard', value: 'Other' },
      { edit: 'set-field', part: null, field: ['settings', 'language'], was: null, value: 'en' },
      {
        edit: 'set-field',
        part: null,
        field: ['outcomes', 'steer'],
        was: null,
        value: { key: 'steer', text: 'Steer a course' },
      },
      {
        edit: 'set-field',
        part: null,
        field: ['grading', 'categories', 'quizzes'],
        was: null,
        value: { key: 'quizzes', name: 'Quizzes', weight: 20, counts: true },
      },
      {
        edit: 'set-field',
        part: 'week',
        field: ['exceptions', 'one'],
        was: null,
        value: { key: 'one', anchor: { at: 'first' }, omit: false, leaveOut: [], set: [], add: [] },
      },
      { edit: 'set-field', part: 'quiz', field: ['settings', 'attempts'], was: null, value: 2 },
      {
        edit: 'set-field',
        part: 'home-page',
        field: ['name'],
        was: '{code} home',
        value: '{code} start',
      },
      {
        edit: 'set-block',
        part: 'home-page',
        block: 'begin',
        field: 'label',
        was: 'Where to begin',
        value: 'Begin',
      },
      { edit: 'move-block', part: 'home-page', block: 'help', at: 0 },
      { edit: 'remove-block', part: 'welcome', block: 'hello' },
    ]
    fc.assert(
      fc.property(
        fc.subarray(edits, { minLength: 1 }),
        (chosen) =>
          void expect(compareTemplates(exampleTemplate(), edited(...chosen))).toHaveLength(
            chosen.length,
          ),
      ),
      propertyRuns(),
    )
  })
})
