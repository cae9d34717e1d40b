import { z } from 'zod'
import { questionsShowing, type QuestionSet } from './question.ts'
import { Block, filesLedToBy, KeptBlock, showsImage } from './block.ts'
import type { TemplateEdit } from './edit.ts'
import { TemplateFile } from './file.ts'
import { Rubric } from './grading.ts'
import { filesOfItem } from './filesOfItem.ts'
import { freshKey } from './freshKey.ts'
import { takenKeys } from './made.ts'
import { isModule, Part } from './part.ts'
import { Asset } from './image.ts'
import { HouseText, partsWithin, type Template } from './template.ts'

/** Parts cut or copied, with what they show, so that they can be put into another template. */
export const ClippedParts = z.strictObject({
  schema: z.literal('wickerframe.parts/1'),
  parts: z.array(Part).min(1).max(400),
  houseTexts: z.array(HouseText).default([]),
  assets: z.array(Asset).default([]),
  files: z.array(TemplateFile).default([]),
  rubrics: z.array(Rubric).default([]),
  keptBlocks: z.array(KeptBlock).default([]),
})
export type ClippedParts = z.output<typeof ClippedParts>

const blocksOf = (parts: readonly Part[]): Block[] =>
  parts.flatMap((part) => (isModule(part) ? [] : part.blocks))

/** The parts of these keys with everything in them; one inside another that is taken too is not taken twice. */
export const clipParts = (template: Template, keys: ReadonlySet<string>): ClippedParts | null => {
  const pick = (parts: readonly Part[]): Part[] =>
    parts.flatMap((part) =>
      keys.has(part.key)
        ? [part]
        : isModule(part)
          ? [...pick(part.items), ...part.exceptions.flatMap((exception) => pick(exception.add))]
          : [],
    )
  const parts = pick(template.parts)
  if (parts.length === 0) return null
  const all = partsWithin(parts)
  const blocks = blocksOf(all)
  const keptBlocks = template.keptBlocks.filter(({ key }) =>
    blocks.some((block) => block.kind === 'kept-block' && block.kept === key),
  )
  const shown: readonly Block[] = [...blocks, ...keptBlocks.map((block) => block.block)]
  return {
    schema: 'wickerframe.parts/1',
    parts: structuredClone(parts),
    houseTexts: template.houseTexts.filter((text) =>
      shown.some((block) => block.kind === 'house-text' && block.houseText === text.key),
    ),
    assets: template.assets.filter(
      (asset) =>
        shown.some((block) => showsImage(block, asset)) ||
        all.some((part) => !isModule(part) && questionsShowing(part, asset) > 0),
    ),
    files: template.files.filter(
      ({ key }) =>
        all.some((part) => !isModule(part) && filesOfItem(part).has(key)) ||
        keptBlocks.some(({ block }) => filesLedToBy(block).has(key)),
    ),
    rubrics: template.rubrics.filter((rubric) =>
      all.some((part) => part.settings.rubric === rubric.key),
    ),
    keptBlocks,
  }
}

/** HTML whose links to parts follow their new keys. */
const relinked = (html: string, keys: ReadonlyMap<string, string>): string =>
  html.replace(/href="part:([a-z0-9-]+)"/g, (whole, key: string) =>
    keys.has(key) ? `href="part:${keys.get(key)}"` : whole,
  )

/** Parts under fresh keys; what in them speaks of one of them speaks of its new key. */
const underFreshKeys = (parts: readonly Part[], taken: Set<string>): Part[] => {
  const keys = new Map<string, string>()
  const mint = (key: string) => {
    const fresh = freshKey(key.replace(/-\d+$/, ''), taken)
    taken.add(fresh)
    keys.set(key, fresh)
  }
  for (const part of partsWithin(parts)) {
    mint(part.key)
    if (isModule(part)) part.exceptions.forEach((exception) => mint(exception.key))
  }
  const now = (key: string): string => keys.get(key) ?? key
  const block = (block: Block): Block => {
    const copy: Block = structuredClone(block)
    for (const [field, value] of Object.entries(copy))
      if (typeof value === 'string' && value.includes('href="part:'))
        Object.assign(copy, { [field]: relinked(value, keys) })
    return copy.kind === 'signposts'
      ? { ...copy, links: copy.links.map((link) => ({ ...link, to: now(link.to) })) }
      : copy
  }
  const asking = (questions: QuestionSet): QuestionSet => ({
    ...questions,
    list: questions.list.map((question) => ({
      ...question,
      body: { ...question.body, text: relinked(question.body.text, keys) },
    })),
  })
  const renamed = (part: Part): Part =>
    isModule(part)
      ? {
          ...part,
          key: now(part.key),
          items: part.items.map(renamed),
          exceptions: part.exceptions.map((exception) => ({
            ...exception,
            key: now(exception.key),
            leaveOut: exception.leaveOut === 'all' ? 'all' : exception.leaveOut.map(now),
            set: exception.set.map((set) => ({ ...set, part: now(set.part) })),
            add: exception.add.map(renamed),
          })),
        }
      : {
          ...part,
          key: now(part.key),
          blocks: part.blocks.map(block),
          ...(part.questions ? { questions: asking(part.questions) } : {}),
          acceptsInstead: part.acceptsInstead.map(now) as typeof part.acceptsInstead,
        }
  return parts.map(renamed)
}

const sharedLists = ['houseTexts', 'assets', 'files', 'rubrics', 'keptBlocks'] as const

/** The edits by which a template holds shared pieces, those that it does not hold already. */
export const bringEdits = (
  template: Template,
  pieces: { readonly [List in (typeof sharedLists)[number]]?: Readonly<Template[List]> },
): TemplateEdit[] =>
  sharedLists.flatMap((list) =>
    (pieces[list] ?? [])
      .filter(({ key }) => !template[list].some((held) => held.key === key))
      .map((value): TemplateEdit => ({
        edit: 'set-field',
        part: null,
        field: [list, value.key],
        was: null,
        value,
      })),
  )

/**
 * The edits that put clipped parts into a template: under fresh keys, with the house texts, images, rubrics and kept
 * blocks they show where the template does not have them. Signposts to parts it does not have are left out.
 */
export const pasteEdits = (
  template: Template,
  clip: ClippedParts,
  parent: string | null,
  at: number,
): { edits: TemplateEdit[]; keys: string[] } => {
  const taken = takenKeys(template)
  const parts = underFreshKeys(clip.parts, new Set(taken))
  const known = new Set([...taken, ...partsWithin(parts).map((part) => part.key)])
  const bring = bringEdits(template, clip)
  const sound = (part: Part): Part =>
    isModule(part)
      ? {
          ...part,
          items: part.items.map(sound),
          exceptions: part.exceptions.map((exception) => ({
            ...exception,
            add: exception.add.map(sound),
          })),
        }
      : {
          ...part,
          blocks: part.blocks.flatMap((block): Block[] => {
            if (block.kind !== 'signposts') return [block]
            const links = block.links.filter((link) => known.has(link.to))
            return links.length > 0 ? [{ ...block, links }] : []
          }),
        }
  return {
    edits: [
      ...bring,
      ...parts.map((part, i): TemplateEdit => ({
        edit: 'add-part',
        parent,
        at: at + i,
        part: sound(part),
      })),
    ],
    keys: parts.map((part) => part.key),
  }
}
