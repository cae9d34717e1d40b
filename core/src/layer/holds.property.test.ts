import * as fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { readDocument } from '../document/index.ts'
import {
  everyExpected,
  expandCourse,
  type ExpectedCourse,
  type ExpectedPart,
} from '../expand/index.ts'
import { exampleTemplate } from '../rules/example/exampleCourse.ts'
import { everyItem, everyPart, isModule, strengths, Template } from '../template/index.ts'
import { variantFacts, variantsOf, type Variant } from '../variant/index.ts'
import { newLayer, weakenings } from './index.ts'
import { propertyRuns } from '../testing/propertyRuns.testing.ts'

/** A standard with conditions, exceptions, policies and nesting, as far as the example has none. */
const upper = ((): Template => {
  const template = exampleTemplate()
  const week = template.parts.find((part) => part.key === 'week')
  if (!week || !isModule(week)) throw new Error('no week')
  const checklist = week.items.find((item) => item.key === 'checklist')
  if (checklist) checklist.when = { modalities: ['on-campus', 'online'] }
  week.exceptions.push({
    key: 'middle',
    anchor: { at: 'number', number: 4 },
    omit: false,
    leaveOut: ['quiz'],
    set: [],
    add: [
      {
        ...structuredClone(everyItem(template)[0] as never as (typeof week.items)[number]),
        key: 'exam',
        name: 'Midway exam',
      },
    ],
  })
  template.policies.push({ rule: 'guidance-visible', off: false, strength: 'must', parameters: {} })
  const read = readDocument(Template, template)
  if (!read.ok) throw new Error(JSON.stringify(read.problems[0]))
  return read.value
})()

/** What a layer's people may write, much of which takes something away from what stands above. */
const acts: Record<string, (layer: Template, n: number) => void> = {
  'a condition on a part': (layer, n) => {
    const part = pick(everyPart(layer), n)
    if (part)
      part.when = [
        { modalities: ['online'] },
        { departments: ['NAV'] },
        { weeks: { from: 10, to: 16 } },
        { classSections: 'own' as const },
      ][n % 4]
  },
  'fewer repetitions': (layer, n) => {
    const part = pick(everyPart(layer), n)
    if (part) part.repeat = { per: 'week', every: 1 + (n % 3), except: [n % 5] }
  },
  'an exception': (layer, n) => {
    const module = pick(everyPart(layer).filter(isModule), n)
    const inside = module && pick(module.items, n >> 2)
    if (!module || !inside || module.exceptions.some((exception) => exception.key === `own-${n}`))
      return
    module.exceptions.push({
      key: `own-${n}`,
      anchor: [
        { at: 'first' as const },
        { at: 'last' as const },
        { at: 'number' as const, number: n % 6 },
      ][n % 3] ?? { at: 'first' },
      omit: n % 11 === 0,
      leaveOut: n % 4 === 0 ? 'all' : n % 4 === 1 ? [inside.key] : [],
      set:
        n % 4 > 1
          ? [
              {
                part: inside.key,
                strength: strengths[n % strengths.length] ?? 'must',
                ...(n % 7 === 0 ? { settings: { published: false } } : {}),
                ...(n % 5 === 0 ? { name: 'Otherwise' } : {}),
              },
            ]
          : [],
      ...(n % 6 === 0 ? { strength: 'may' as const } : {}),
      add: [],
    })
  },
  'another strength': (layer, n) => {
    const part = pick(everyPart(layer), n)
    if (part) part.strength = strengths[n % strengths.length] ?? 'must'
  },
  'a hidden part': (layer, n) => {
    const part = pick(everyPart(layer), n)
    if (part) part.settings = { ...part.settings, published: false }
  },
  'another audience': (layer, n) => {
    const part = pick(everyPart(layer), n)
    if (part) part.audience = 'backstage'
  },
  'a grouping': (layer, n) => {
    const module = pick(everyPart(layer).filter(isModule), n)
    if (module) module.groupings = { min: 1, max: 2 + (n % 4), name: 'Unit {unit}' }
  },
  'something accepted instead': (layer, n) => {
    const item = pick(everyItem(layer), n)
    if (item) item.acceptsInstead = ['page']
  },
  'a rule off, lower or set otherwise': (layer, n) => {
    const rule = ['guidance-visible', 'alt-missing', 'must-part-hidden'][n % 3] ?? ''
    layer.policies = [
      ...layer.policies.filter((policy) => policy.rule !== rule),
      {
        rule,
        off: n % 4 === 0,
        ...(n % 4 === 1 ? { strength: 'may' as const } : {}),
        parameters: n % 4 === 2 && rule === 'must-part-hidden' ? { noticeDays: 30 } : {},
      },
    ]
  },
  'a page of its own': (layer, n) => {
    const module = pick(everyPart(layer).filter(isModule), n)
    const like = everyItem(layer)[0]
    if (module && like && !everyPart(layer).some((part) => part.key === `own-page-${n}`))
      module.items.splice(n % (module.items.length + 1), 0, {
        ...structuredClone(like),
        key: `own-page-${n}`,
        name: `Own page ${n}`,
      })
  },
  'a block of its own': (layer, n) => {
    const item = pick(everyItem(layer), n)
    if (item && !item.blocks.some((block) => block.key === `own-${n}`))
      item.blocks.splice(n % (item.blocks.length + 1), 0, {
        kind: 'fixed-text',
        key: `own-${n}`,
        strength: 'must',
        html: `<p>Own ${n}.</p>`,
      } as never)
  },
  'a block less': (layer, n) => {
    const item = pick(everyItem(layer), n)
    item?.blocks.splice(n % 3, 1)
  },
  'half built': (layer, n) => void (layer.halfBuilt = n % 3 === 0),
}
const pick = <T>(list: readonly T[], n: number): T | undefined => list[n % Math.max(1, list.length)]

const expandVariant = (template: Template, variant: Variant) =>
  expandCourse({ template, facts: variantFacts(variant), mintFrom: 'variant' })

const rank = (strength: string): number => strengths.indexOf(strength as never)

/** What of an expected course another one does not hold, or holds more weakly. */
const lacking = (above: ExpectedCourse, below: ExpectedCourse): string[] => {
  const there = new Map(
    [below.home, ...everyExpected(below.parts)].map((part) => [part.instance, part]),
  )
  return [above.home, ...everyExpected(above.parts)].flatMap((part: ExpectedPart): string[] => {
    const own = there.get(part.instance)
    if (!own) return [`${part.instance} is gone`]
    return [
      ...(rank(own.strength) > rank(part.strength) ? [`${part.instance} is weaker`] : []),
      ...(own.audience === part.audience ? [] : [`${part.instance} is for others`]),
      ...(own.name === part.name ? [] : [`${part.instance} is called otherwise`]),
      ...(part.audience === 'students' &&
      own.definition.settings.published === false &&
      part.definition.settings.published !== false
        ? [`${part.instance} is hidden`]
        : []),
      ...part.blocks.flatMap((block) => {
        const mine = own.blocks.find(({ key }) => key === block.key)
        return mine && (mine.html === block.html || block.kind === 'fill-in')
          ? []
          : [`${part.instance}/${block.key} is gone or altered`]
      }),
    ]
  })
}

describe('a layer that is let through', () => {
  it('holds all that stands above it, at least as strong, in every kind of course', () => {
    const counts = { refused: 0, through: 0 }
    fc.assert(
      fc.property(
        fc.array(fc.record({ name: fc.constantFrom(...Object.keys(acts)), n: fc.nat(997) }), {
          minLength: 1,
          maxLength: 3,
        }),
        (given) => {
          const layer = structuredClone(newLayer(upper, 'own', 'Own layer'))
          for (const { name, n } of given) acts[name]?.(layer, n)
          const read = readDocument(Template, layer)
          if (!read.ok) return
          if (weakenings(upper, read.value).length > 0) {
            counts.refused += 1
            return
          }
          counts.through += 1
          for (const variant of variantsOf(read.value)) {
            const [above, below] = [
              expandVariant(upper, variant),
              expandVariant(read.value, variant),
            ]
            if (!above.ok || !below.ok) continue
            expect(lacking(above.value, below.value)).toEqual([])
          }
        },
      ),
      propertyRuns(),
    )
    expect(counts.refused).toBeGreaterThan(propertyRuns().numRuns / 20)
    expect(counts.through).toBeGreaterThan(propertyRuns().numRuns / 20)
  })
})

describe('what is silent above is held at its default', () => {
  const layer = (change: (layer: Template) => void): string[] => {
    const own = structuredClone(newLayer(upper, 'own', 'Own layer'))
    change(own)
    return weakenings(upper, own).map((problem) => problem.path)
  }
  const welcome = (own: Template) => everyItem(own).find((item) => item.key === 'welcome')
  it.each<[string, (own: Template) => void, string]>([
    [
      'a condition on a part that has none',
      (own) => void Object.assign(welcome(own) ?? {}, { when: { modalities: ['online'] } }),
      '/parts/0/items/0/when',
    ],
    [
      'a condition on a module that has none',
      (own) => void Object.assign(own.parts[0] ?? {}, { when: { departments: ['NAV'] } }),
      '/parts/0/when',
    ],
    [
      'a repeat where there is none',
      (own) =>
        void Object.assign(welcome(own) ?? {}, { repeat: { per: 'week', every: 2, except: [] } }),
      '/parts/0/items/0/repeat',
    ],
    [
      'a rule turned off that the layer above says nothing of',
      (own) => void own.policies.push({ rule: 'alt-missing', off: true, parameters: {} }),
      '/policies/1/off',
    ],
    [
      'a rule lowered on whose own strength the layer above relies',
      (own) =>
        void own.policies.push({
          rule: 'alt-missing',
          off: false,
          strength: 'may',
          parameters: {},
        }),
      '/policies/1/strength',
    ],
  ])('%s is a weakening', (_, change, path) => expect(layer(change)).toEqual([path]))
  it('an exception that only raises a strength is none', () => {
    expect(
      layer((own) => {
        const week = own.parts.find((part) => part.key === 'week')
        if (week && isModule(week))
          week.exceptions.push({
            key: 'raised',
            anchor: { at: 'first' },
            omit: false,
            leaveOut: [],
            set: [{ part: 'quiz', strength: 'must' }],
            add: [],
          })
      }),
    ).toEqual([])
  })
})
