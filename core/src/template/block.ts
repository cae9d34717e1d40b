import { z } from 'zod'
import { Basis, Format, Html, Key, Strength } from './words.ts'

/** What a home page must show; a block says which of them it is. */
export const homeElements = [
  'banner', 'course-title', 'welcome', 'instructor-contact', 'office-hours', 'where-to-begin', 'signposts', 'help',
] as const
export const HomeElement = z.enum(homeElements)
export type HomeElement = z.output<typeof HomeElement>

export const fillInTypes = ['text', 'rich-text', 'image', 'file', 'video', 'date', 'e-mail', 'link', 'list', 'table'] as const

const shared = {
  key: Key,
  strength: Strength.default('must'),
  basis: Basis.optional(),
  element: HomeElement.optional(),
}

export const FixedText = z.strictObject({ ...shared, kind: z.literal('fixed-text'), html: Html })
export const FillIn = z.strictObject({
  ...shared,
  kind: z.literal('fill-in'),
  label: z.string().max(200).optional(),
  type: z.enum(fillInTypes).default('text'),
  prompt: z.string().min(1).max(1000),
  hint: z.string().max(1000).optional(),
  scope: z.enum(['place', 'course']).default('place'),
  minWords: z.number().int().min(1).max(5000).optional(),
  earlierPrompts: z.array(z.string().max(1000)).default([]).describe('Prompts of earlier versions; they still count as unfilled'),
})
export const GuidanceNote = z.strictObject({ ...shared, kind: z.literal('guidance-note'), html: Html })
export const HouseTextBlock = z.strictObject({ ...shared, kind: z.literal('house-text'), houseText: Key, mode: z.enum(['copied', 'linked']).default('copied') })
export const Title = z.strictObject({ ...shared, kind: z.literal('title'), text: Format })
export const Banner = z.strictObject({ ...shared, kind: z.literal('banner'), image: Key })
export const Signposts = z.strictObject({
  ...shared,
  kind: z.literal('signposts'),
  label: z.string().max(200).optional(),
  links: z.array(z.strictObject({ text: z.string().min(1).max(200), to: Key.describe('Key of the part it leads to') })).min(1).max(30),
})
export const WorkList = z.strictObject({ ...shared, kind: z.literal('work-list'), label: z.string().max(200).default('To do') })

export const Block = z.discriminatedUnion('kind', [FixedText, FillIn, GuidanceNote, HouseTextBlock, Title, Banner, Signposts, WorkList])
export type Block = z.output<typeof Block>
export const blockKinds = Block.options.map((option) => option.shape.kind.value)
