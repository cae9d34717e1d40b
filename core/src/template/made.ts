import type { Block, KeptBlockBody } from './block.ts'
import type { Item, Module, Part } from './part.ts'
import { homePageKey, partsWithin, type Template } from './template.ts'
import { isModule } from './part.ts'
import type { ItemKind } from './words.ts'

/** The prompt of a fill-in that was just made; proofreading asks for a better one. */
export const newPrompt = 'What should stand here?'

/** A key that is not taken, made from a name; its fields are left out. */
export const freshKey = (name: string, taken: ReadonlySet<string>): string => {
  const plain = name
    .normalize('NFKD')
    .replace(/\p{M}/gu, '')
    .toLowerCase()
    .replace(/\{[^}]*\}/g, '')
  const base =
    plain
      .replace(/[^a-z0-9]+/g, '-')
      .replace(/^-+|-+$/g, '')
      .slice(0, 60)
      .replace(/-+$/, '') || 'part'
  for (let n = 1; ; n++) {
    const key = n === 1 ? base : `${base}-${n}`
    if (!taken.has(key)) return key
  }
}

/** Every key that a part or exception may not take. */
export const takenKeys = (template: Template): Set<string> =>
  new Set([
    homePageKey,
    ...partsWithin(template.parts).flatMap((part) => [
      part.key,
      ...(isModule(part) ? part.exceptions.map((one) => one.key) : []),
    ]),
  ])

const shared = {
  strength: 'must',
  audience: 'students',
  position: 'in-order',
  span: 'module',
  may: {},
  settings: {},
} as const

export const newModule = (key: string, name: string): Module => ({
  ...shared,
  kind: 'module',
  key,
  name,
  items: [],
  exceptions: [],
  objectives: [],
})
export const newItem = (kind: ItemKind, key: string, name: string): Item => ({
  ...shared,
  kind,
  key,
  name,
  blocks: [],
  acceptsInstead: [],
  inGroup: 'per-unit',
  assesses: [],
})
export const newPart = (kind: ItemKind | 'module', key: string, name: string): Part =>
  kind === 'module' ? newModule(key, name) : newItem(kind, key, name)

/** A block of a kind as it is first put in; null where the template has nothing it could show. */
export const newBlock = (kind: Block['kind'], key: string, template: Template): Block | null => {
  const base = { key, strength: 'must' } as const
  const firstPart = template.parts[0]
  const body = (): KeptBlockBody | null => {
    switch (kind) {
      case 'fixed-text':
        return { ...base, kind, html: '<p>New fixed text.</p>' }
      case 'guidance-note':
        return { ...base, kind, html: '<p>Advice to the instructor.</p>' }
      case 'take-care':
        return { ...base, kind, html: '<p>What goes wrong, and how not to let it.</p>' }
      case 'in-short':
        return { ...base, kind, html: '<p>The page in two sentences.</p>' }
      case 'fill-in':
        return {
          ...base,
          kind,
          type: 'text',
          prompt: newPrompt,
          scope: 'place',
          earlierPrompts: [],
        }
      case 'house-text':
        return template.houseTexts[0]
          ? { ...base, kind, houseText: template.houseTexts[0].key, mode: 'copied' }
          : null
      case 'banner':
        return template.assets[0] ? { ...base, kind, image: template.assets[0].key } : null
      case 'title':
        return { ...base, kind, text: '{code} {title}' }
      case 'signposts':
        return firstPart
          ? { ...base, kind, links: [{ text: 'Begin here', to: firstPart.key }] }
          : null
      case 'work-list':
        return { ...base, kind, label: 'To do' }
      case 'objectives':
        return {
          ...base,
          kind,
          label: 'By the end you can',
          objectives: [
            {
              key: freshKey(`${key}-1`, new Set()),
              text: 'objective, beginning with a verb you could test',
              serves: [],
            },
          ],
        }
      case 'key-dates':
        return { ...base, kind, label: 'Key dates', of: 'module' }
      case 'schedule':
        return { ...base, kind, label: 'Schedule' }
      case 'contact-card':
        return { ...base, kind, label: 'Your instructor' }
      case 'checklist':
        return { ...base, kind, label: 'Before you go on', lines: ['I have …'] }
      case 'video':
        return { ...base, kind, title: 'Title of the video', url: '', captions: false }
      case 'reading':
        return {
          ...base,
          kind,
          label: 'Reading',
          works: [{ text: 'What to read, with its pages' }],
        }
      case 'assignment-brief':
        return {
          ...base,
          kind,
          why: '<p>Why students do this.</p>',
          whatToDo: '<p>What they do.</p>',
          handIn: '<p>What they hand in.</p>',
          judged: '',
        }
      case 'discussion-prompt':
        return { ...base, kind, question: '<p>An open question to argue about.</p>', answers: 1 }
      case 'table':
        return {
          ...base,
          kind,
          caption: 'What the table shows',
          header: ['First', 'Second'],
          rows: [['', '']],
        }
      case 'kept-block':
        return null
    }
  }
  if (kind === 'kept-block')
    return template.keptBlocks[0] ? { ...base, kind, kept: template.keptBlocks[0].key } : null
  return body()
}
