import { z } from 'zod'
import { Availability, PlainDate } from '../calendar/index.ts'
import { Block } from './block.ts'
import { isModule, Part, type Item } from './part.ts'
import { Basis, Format, Html, Key, Strength } from './words.ts'

/** The part key of the home page; no other part may take it. */
export const homePageKey = 'home-page'

export const HouseText = z.strictObject({
  key: Key,
  title: z.string().min(1).max(200),
  revisions: z
    .array(z.strictObject({ number: z.number().int().min(1), inForceFrom: PlainDate, html: Html }))
    .min(1)
    .describe('In order; the one in force on a date is the last whose inForceFrom is not after it'),
})
export type HouseText = z.output<typeof HouseText>

export const Asset = z.strictObject({
  key: Key,
  fileName: z.string().regex(/^[\w.-]{1,120}$/, 'a file name without folders'),
  svg: z.string().max(200_000),
  alternativeText: z.string().min(1).max(500),
  licence: z.string().min(1).max(300),
})

export const RulePolicy = z.strictObject({
  rule: Key,
  off: z.boolean().default(false),
  strength: Strength.optional(),
  parameters: z.record(z.string(), z.unknown()).default({}),
  basis: Basis.optional(),
})

const partsWithin = (parts: readonly Part[]): Part[] => parts.flatMap((part) => (isModule(part) ? [part, ...partsWithin(part.items)] : [part]))
const depthOf = (parts: readonly Part[]): number => 1 + Math.max(0, ...parts.map((part) => (isModule(part) ? depthOf(part.items) : 0)))

export const mostParts = 2000
const deepestNesting = 6

/** The institutional standard for a kind of course. */
export const Template = z
  .strictObject({
    schema: z.literal('wickerframe.template/1'),
    key: Key,
    title: z.string().min(1).max(200),
    summary: z.string().max(2000).default(''),
    version: z.number().int().min(1).optional().describe('Set on a released version; a draft has none'),
    appliesTo: z
      .strictObject({
        modalities: z.array(z.string().max(40)).default([]),
        departments: z.array(z.string().max(40)).default([]),
        weeks: z.array(z.number().int().min(1).max(60)).default([]),
      })
      .prefault({}),
    naming: z.strictObject({ courseName: Format, courseLabel: Format }),
    opening: z
      .strictObject({
        follow: z.enum(['week-by-week', 'all-at-once']).default('week-by-week'),
        leadDays: z.number().int().min(0).max(60).default(0).describe('How many days before its first day a week must be open'),
      })
      .prefault({}),
    availability: Availability.optional().describe('From when until when students reach a course; deployment sets it'),
    units: z.number().int().min(1).max(30).optional().describe('How many units, where parts repeat per unit and the course names none'),
    home: z.strictObject({ name: Format, strength: Strength.default('must'), basis: Basis.optional(), blocks: z.array(Block).max(100) }),
    navigation: z
      .array(z.strictObject({ key: Key, label: z.string().min(1).max(100), hidden: z.boolean().default(false), strength: Strength.default('should') }))
      .default([]),
    parts: z.array(Part).max(400),
    houseTexts: z.array(HouseText).default([]),
    assets: z.array(Asset).default([]),
    policies: z.array(RulePolicy).default([]),
  })
  .superRefine((template, context) => {
    const parts = partsWithin(template.parts)
    if (parts.length > mostParts) context.addIssue({ code: 'custom', path: ['parts'], message: `at most ${mostParts} parts` })
    if (depthOf(template.parts) > deepestNesting) context.addIssue({ code: 'custom', path: ['parts'], message: `modules nested at most ${deepestNesting} deep` })
    const partKeys = new Set<string>([homePageKey])
    const houseTexts = new Set(template.houseTexts.map((one) => one.key))
    const assets = new Set(template.assets.map((one) => one.key))
    const visitBlocks = (blocks: readonly Block[], path: PropertyKey[]) => {
      const blockKeys = new Set<string>()
      blocks.forEach((block, i) => {
        if (blockKeys.has(block.key)) context.addIssue({ code: 'custom', path: [...path, i, 'key'], message: `a block key used once on its page; ${block.key} stands twice` })
        blockKeys.add(block.key)
        if (block.kind === 'house-text' && !houseTexts.has(block.houseText))
          context.addIssue({ code: 'custom', path: [...path, i, 'houseText'], message: `the key of a house text in houseTexts: ${[...houseTexts].join(', ') || 'there is none'}` })
        if (block.kind === 'banner' && !assets.has(block.image))
          context.addIssue({ code: 'custom', path: [...path, i, 'image'], message: `the key of an image in assets: ${[...assets].join(', ') || 'there is none'}` })
        if (block.kind === 'signposts')
          block.links.forEach((link, j) => {
            if (!allKeys.has(link.to)) context.addIssue({ code: 'custom', path: [...path, i, 'links', j, 'to'], message: 'the key of a part of this template' })
          })
      })
    }
    const allKeys = new Set([homePageKey, ...parts.map((part) => part.key)])
    const visit = (list: readonly Part[], path: PropertyKey[]) =>
      list.forEach((part, i) => {
        if (partKeys.has(part.key)) context.addIssue({ code: 'custom', path: [...path, i, 'key'], message: `a part key used once; ${part.key} stands twice` })
        partKeys.add(part.key)
        if (isModule(part)) visit(part.items, [...path, i, 'items'])
        else visitBlocks(part.blocks, [...path, i, 'blocks'])
      })
    visit(template.parts, ['parts'])
    visitBlocks(template.home.blocks, ['home', 'blocks'])
  })
export type Template = z.output<typeof Template>

/** Every part below the template, modules before their items, in order. */
export const everyPart = (template: Template): Part[] => partsWithin(template.parts)
export const everyItem = (template: Template): Item[] => everyPart(template).filter((part): part is Item => !isModule(part))
