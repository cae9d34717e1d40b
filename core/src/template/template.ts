import { Line } from '../document/index.ts'
import { z } from 'zod'
import { Availability, PlainDate } from '../calendar/index.ts'
import { Block, filesOfBlock, imagesOfBlock, KeptBlock } from './block.ts'
import { TemplateFile } from './file.ts'
import { CourseSettings, GradeScheme, Rubric } from './grading.ts'
import { Asset, storedImage } from './image.ts'
import { HostName } from '../allow/index.ts'
import { HouseStyle } from '../houseStyle/index.ts'
import { NavigationEntry } from './navigation.ts'
import { isModule, Part, type Item, type Module } from './part.ts'
import { Basis, Format, Html, Key, Strength } from './words.ts'

/** The part key of the home page; no other part may take it. */
export const homePageKey = 'home-page'

export const HouseText = z.strictObject({
  key: Key,
  title: Line(200),
  form: z
    .enum(['text', 'file', 'page'])
    .default('text')
    .describe('A passage in a page, a file to hand out, or a whole page'),
  revisions: z
    .array(z.strictObject({ number: z.number().int().min(1), inForceFrom: PlainDate, html: Html }))
    .min(1)
    .refine(
      (list) =>
        list.every(
          ({ number, inForceFrom }, i) =>
            i === 0 ||
            (number > (list[i - 1]?.number ?? 0) &&
              inForceFrom >= (list[i - 1]?.inForceFrom ?? '')),
        ),
      'revisions in order: each with a higher number, in force no earlier than the one before',
    )
    .describe('In order; the one in force on a date is the last whose inForceFrom is not after it'),
})
export type HouseText = z.output<typeof HouseText>

export const RulePolicy = z.strictObject({
  rule: Key,
  off: z.boolean().default(false),
  strength: Strength.optional(),
  parameters: z.record(z.string(), z.unknown()).default({}),
  basis: Basis.optional(),
})

const childrenOf = (module: Module): Part[] => [
  ...module.items,
  ...module.exceptions.flatMap((exception) => exception.add),
]
/** Parts with everything in them, modules before their items; what an exception adds follows its module's own items. */
export const partsWithin = (parts: readonly Part[]): Part[] =>
  parts.flatMap((part) => (isModule(part) ? [part, ...partsWithin(childrenOf(part))] : [part]))
const depthOf = (parts: readonly Part[]): number =>
  1 + Math.max(0, ...parts.map((part) => (isModule(part) ? depthOf(childrenOf(part)) : 0)))

export const mostParts = 2000
const deepestNesting = 6

/** The institutional standard for a kind of course. */
export const Template = z
  .strictObject({
    schema: z.literal('wickerframe.template/1'),
    key: Key,
    title: Line(200),
    summary: z.string().max(2000).default(''),
    version: z
      .number()
      .int()
      .min(1)
      .optional()
      .describe('Set on a released version; a draft has none'),
    extends: z
      .strictObject({ template: Key, version: z.number().int().min(1) })
      .optional()
      .describe(
        'The released version this layer is built on; everything of it stands in this document too',
      ),
    halfBuilt: z
      .boolean()
      .default(false)
      .describe('Whether parts are still to come, in a later version'),
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
        leadDays: z
          .number()
          .int()
          .min(0)
          .max(60)
          .default(0)
          .describe('How many days before its first day a week must be open'),
      })
      .prefault({}),
    availability: Availability.optional().describe(
      'From when until when students reach a course; deployment sets it',
    ),
    units: z
      .number()
      .int()
      .min(1)
      .max(30)
      .optional()
      .describe('How many units, where parts repeat per unit and the course names none'),
    home: z.strictObject({
      name: Format,
      strength: Strength.default('must'),
      basis: Basis.optional(),
      blocks: z.array(Block).max(100),
    }),
    navigation: z.array(NavigationEntry).default([]),
    settings: CourseSettings.prefault({}),
    houseStyle: HouseStyle.optional().describe(
      'How its pages look; without it, they are written without styles',
    ),
    frameHosts: z
      .array(HostName)
      .max(60)
      .optional()
      .describe(
        'Hosts whose films and other content are shown within pages; of any other, a link is written',
      ),
    grading: GradeScheme.prefault({}),
    rubrics: z.array(Rubric).max(200).default([]),
    outcomes: z
      .array(z.strictObject({ key: Key, text: Line(500) }))
      .max(60)
      .default([])
      .describe('What a student can do after the course'),
    parts: z.array(Part).max(400),
    houseTexts: z.array(HouseText).default([]),
    assets: z.array(Asset).default([]),
    files: z
      .array(TemplateFile)
      .max(500)
      .default([])
      .describe('Files that its parts hand out, and its pages lead to'),
    keptBlocks: z
      .array(KeptBlock)
      .max(300)
      .default([])
      .describe('Blocks shown in several places, each corrected in one'),
    policies: z.array(RulePolicy).default([]),
  })
  .superRefine((template, context) => {
    const parts = partsWithin(template.parts)
    if (parts.length > mostParts)
      context.addIssue({ code: 'custom', path: ['parts'], message: `at most ${mostParts} parts` })
    if (depthOf(template.parts) > deepestNesting)
      context.addIssue({
        code: 'custom',
        path: ['parts'],
        message: `modules nested at most ${deepestNesting} deep`,
      })
    const say = (path: PropertyKey[], message: string) =>
      context.addIssue({ code: 'custom', path, message })
    const among = (keys: ReadonlySet<string>) =>
      [...keys].slice(0, 12).join(', ') || 'there is none'
    const houseTexts = new Set(template.houseTexts.map((text) => text.key))
    const assets = new Set(template.assets.map((asset) => asset.key))
    const kept = new Set(template.keptBlocks.map((block) => block.key))
    const files = new Set(template.files.map((file) => file.key))
    const rubrics = new Set(template.rubrics.map((rubric) => rubric.key))
    const allKeys = new Set([homePageKey, ...parts.map((part) => part.key)])
    const taken = new Set<string>([homePageKey])
    /** Parts and exceptions share one space of keys. */
    const takeKey = (key: string, path: PropertyKey[]) => {
      if (taken.has(key)) say([...path, 'key'], `a part key used once; ${key} stands twice`)
      taken.add(key)
    }
    const visitBlock = (block: Block, path: PropertyKey[]) => {
      if (block.kind === 'house-text' && !houseTexts.has(block.houseText))
        say([...path, 'houseText'], `the key of a house text in houseTexts: ${among(houseTexts)}`)
      for (const { image, at } of imagesOfBlock(block))
        if (!assets.has(image))
          say([...path, ...at], `the key of an image in assets: ${among(assets)}`)
      for (const { file, at } of filesOfBlock(block))
        if (!files.has(file)) say([...path, ...at], `the key of a file in files: ${among(files)}`)
      if (block.kind === 'kept-block' && !kept.has(block.kept))
        say([...path, 'kept'], `the key of a block in keptBlocks: ${among(kept)}`)
      if (block.kind === 'signposts')
        block.links.forEach((link, j) => {
          if (!allKeys.has(link.to))
            say([...path, 'links', j, 'to'], 'the key of a part of this template')
        })
    }
    const visitBlocks = (blocks: readonly Block[], path: PropertyKey[]) => {
      const blockKeys = new Set<string>()
      blocks.forEach((block, i) => {
        if (blockKeys.has(block.key))
          say([...path, i, 'key'], `a block key used once on its page; ${block.key} stands twice`)
        blockKeys.add(block.key)
        visitBlock(block, [...path, i])
      })
    }
    const visitQuestions = ({ kind, questions }: Item, path: PropertyKey[]) => {
      if (!questions) return
      if (kind !== 'assessment') say(path, 'no questions: only an assessment holds them')
      const keys = new Set<string>()
      questions.list.forEach(({ key }, i) => {
        if (keys.has(key))
          say([...path, 'list', i, 'key'], `a key used once in its assessment; ${key} stands twice`)
        keys.add(key)
      })
    }
    const visitFile = ({ kind, file }: Item, path: PropertyKey[]) => {
      if (!file) return
      if (kind !== 'file') say(path, 'no file: only a part of the kind file hands one out')
      if (file.key !== undefined && !files.has(file.key))
        say([...path, 'key'], `the key of a file in files: ${among(files)}`)
    }
    const visitException = (module: Module, index: number, path: PropertyKey[]) => {
      const exception = module.exceptions[index]
      if (!exception) return
      takeKey(exception.key, path)
      const inside = new Set(partsWithin(module.items).map((part) => part.key))
      if (exception.leaveOut !== 'all')
        exception.leaveOut.forEach((key, i) => {
          if (!inside.has(key))
            say([...path, 'leaveOut', i], `the key of a part in ${module.key}: ${among(inside)}`)
        })
      exception.set.forEach(({ part }, i) => {
        if (!inside.has(part))
          say([...path, 'set', i, 'part'], `the key of a part in ${module.key}: ${among(inside)}`)
      })
      visit(exception.add, [...path, 'add'])
    }
    const visit = (list: readonly Part[], path: PropertyKey[]) =>
      list.forEach((part, i) => {
        takeKey(part.key, [...path, i])
        if (part.settings.rubric !== undefined && !rubrics.has(part.settings.rubric))
          say(
            [...path, i, 'settings', 'rubric'],
            `the key of a rubric in rubrics: ${among(rubrics)}`,
          )
        if (isModule(part)) {
          visit(part.items, [...path, i, 'items'])
          part.exceptions.forEach((_, j) => visitException(part, j, [...path, i, 'exceptions', j]))
        } else {
          visitBlocks(part.blocks, [...path, i, 'blocks'])
          visitQuestions(part, [...path, i, 'questions'])
          visitFile(part, [...path, i, 'file'])
        }
      })
    visit(template.parts, ['parts'])
    visitBlocks(template.home.blocks, ['home', 'blocks'])
    if (template.settings.picture !== undefined && !assets.has(template.settings.picture))
      say(['settings', 'picture'], `the key of an image in assets: ${among(assets)}`)
    template.keptBlocks.forEach((block, i) => visitBlock(block.block, ['keptBlocks', i, 'block']))
    if (template.extends?.template === template.key)
      say(['extends', 'template'], 'the key of another template; a layer cannot extend itself')
    const lists = {
      houseTexts: template.houseTexts,
      assets: template.assets,
      files: template.files,
      keptBlocks: template.keptBlocks,
      rubrics: template.rubrics,
      outcomes: template.outcomes,
      navigation: template.navigation,
    }
    for (const [name, list] of Object.entries(lists)) {
      const seen = new Set<string>()
      list.forEach(({ key }, i) => {
        if (seen.has(key)) say([name, i, 'key'], `a key used once in ${name}; ${key} stands twice`)
        seen.add(key)
      })
    }
  })
export type Template = z.output<typeof Template>

/** Every part below the template, modules before their items, in order. */
export const everyPart = (template: Template): Part[] => partsWithin(template.parts)
export const everyItem = (template: Template): Item[] =>
  everyPart(template).filter((part): part is Item => !isModule(part))

/** The file that a part hands out; null where it hands out none of the template's. */
export const fileOfPart = (part: Part, { files }: Pick<Template, 'files'>): TemplateFile | null =>
  isModule(part) ? null : (files.find(({ key }) => key === part.file?.key) ?? null)

/** What a template wants a course to be set to, as the course has it. */
export const courseSettingsOf = ({ settings, assets }: Template): CourseSettings => {
  const { picture, ...others } = settings
  const asset = assets.find(({ key }) => key === picture)
  return { ...others, ...(asset ? { picture: storedImage(asset).name } : {}) }
}
