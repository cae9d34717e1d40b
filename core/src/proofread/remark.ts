import { z } from 'zod'
import type { ExpectedPart } from '../expand/index.ts'
import { everyExpected } from '../expand/index.ts'
import { analysePage } from '../page/index.ts'
import {
  blockInPlace,
  blockKind,
  homePageKey,
  isModule,
  partsWithin,
  type Block,
  type Item,
  type KeptBlockBody,
  type Part,
  type Template,
} from '../template/index.ts'
import { everyVariant, type VariantCourse } from '../variant/index.ts'

export const Severity = z.enum(['error', 'warning'])
export type Severity = z.output<typeof Severity>

/** What proofreading found in one place of a template. */
export const Remark = z.strictObject({
  check: z.string(),
  severity: Severity,

  /** Key of the part; null for the template as a whole. */
  part: z.string().nullable(),

  /** Key of the block, or of what else is meant within the part; null without one. */
  block: z.string().nullable(),
  message: z.string(),
})
export type Remark = z.output<typeof Remark>

/** What a check says of a place: which of its messages, with which values. */
export interface Found {
  part: string | null
  block?: string
  message: string
  values?: Readonly<Record<string, string>>
  /** For this place only; the check's own otherwise. */
  severity?: Severity
}

/** A page of a template with its blocks as they stand. */
export interface TemplatePage {
  key: string
  /** null for the home page. */
  item: Item | null
  blocks: KeptBlockBody[]
}

/** What the checks read: the template, taken apart once, and worked out for every kind of course. */
export class Proof {
  readonly template: Template
  readonly parts: readonly Part[]
  readonly pages: readonly TemplatePage[]
  private worked: VariantCourse[] | null = null

  constructor(template: Template) {
    this.template = template
    this.parts = partsWithin(template.parts)
    const placed = (blocks: readonly Block[]) =>
      blocks
        .map((block) => blockInPlace(block, template.keptBlocks))
        .filter((block) => block !== null)
    this.pages = [
      { key: homePageKey, item: null, blocks: placed(template.home.blocks) },
      ...this.parts.flatMap((part) =>
        isModule(part) || part.blocks.length === 0
          ? []
          : [{ key: part.key, item: part, blocks: placed(part.blocks) }],
      ),
    ]
  }
  get variants(): readonly VariantCourse[] {
    this.worked ??= everyVariant(this.template)
    return this.worked
  }
  nameOf(key: string): string {
    return key === homePageKey
      ? 'the home page'
      : (this.parts.find((part) => part.key === key)?.name ?? key)
  }
  /** Parts of one kind of course, by key. */
  static byKey({ expected }: VariantCourse): Map<string, ExpectedPart[]> {
    const found = new Map<string, ExpectedPart[]>([[homePageKey, [expected.home]]])
    for (const part of everyExpected(expected.parts))
      found.set(part.key, [...(found.get(part.key) ?? []), part])
    return found
  }
}

/** HTML that a block carries, field by field; what is left empty is not among it. */
export const htmlOf = (block: KeptBlockBody): string[] => {
  const fields = new Map<string, unknown>(Object.entries(block))
  return blockKind(block.kind).htmlFields.flatMap((field) => {
    const html = fields.get(field)
    return typeof html === 'string' && html !== '' ? [html] : []
  })
}

/** File names of the images of a template that HTML shows, each once. */
export const imagesOf = (html: string): string[] => [
  ...new Set(
    analysePage(html).images.flatMap(({ source }) => /^asset:(.+)$/.exec(source)?.[1] ?? []),
  ),
]

export interface ProofCheck {
  /** Kebab-case, stable for ever. */
  id: string
  severity: Severity
  title: string
  /** With named values in braces. */
  messages: Readonly<Record<string, string>>
  find: (proof: Proof) => Iterable<Found>
}

/** A check as it is written in its own file. */
export const defineCheck = (check: ProofCheck): ProofCheck => check
