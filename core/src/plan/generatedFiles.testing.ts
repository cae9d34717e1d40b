import { everyCourseItem } from '../course/index.ts'
import { exampleFile, exampleForm } from '../testing/exampleFiles.testing.ts'
import { handoutTo } from '../files/index.ts'
import { everyItem, freshKey, type Block, type Item, type Template } from '../template/index.ts'
import type { Standing } from './standing.testing.ts'

const pick = <T>(list: readonly T[], n: number): T | undefined => list[n % Math.max(1, list.length)]
const fileParts = (template: Template): Item[] =>
  everyItem(template).filter(({ kind }) => kind === 'file')

/** What a template's people do to files between two versions. */
export const fileChanges: Record<string, (template: Template, n: number) => void> = {
  'another file in its place': (template, n) => {
    const at = n % Math.max(1, template.files.length)
    const held = template.files[at]
    if (held)
      template.files[at] = (n % 3 === 0 ? exampleForm : exampleFile)(held.key, 10 + (n % 20))
  },
  'a part hands out a file of its own': (template, n) => {
    const part = pick(fileParts(template), n)
    if (!part) return
    const key = `of-${part.key}`
    if (!template.files.some((file) => file.key === key))
      template.files.push((n % 2 === 0 ? exampleForm : exampleFile)(key, 40 + (n % 20)))
    part.file = { ...part.file, key }
  },
  'a file is left in another way': (template, n) => {
    const part = pick(fileParts(template), n)
    const key = part?.file?.key
    const left = ([undefined, 'proposed', 'theirs'] as const)[(n >> 2) % 3]
    if (part && key !== undefined) part.file = { key, ...(left ? { left } : {}) }
  },
  'a page offers a document in several formats': (template, n) => {
    const page = pick(pagesOf(template), n)
    const files = template.files.slice(n % 2, 1 + (n % 3)).map(({ key }) => key)
    const taken = new Set(page?.blocks.map(({ key }) => key))
    page?.blocks.push({
      kind: 'document',
      key: freshKey('given-document', taken),
      strength: 'must',
      label: n % 2 === 0 ? '' : 'To take along',
      title: `Document ${n}`,
      files,
    })
  },
  'a sentence leads to a file': (template, n) => {
    const page = pick(pagesOf(template), n)
    const file = pick(template.files, n)
    const taken = new Set(page?.blocks.map(({ key }) => key))
    if (file)
      page?.blocks.push({
        kind: 'fixed-text',
        key: freshKey('given-sentence', taken),
        strength: 'must',
        html: `<p>Sentence ${n}: bring <a href="${handoutTo(file.key)}">this file</a>.</p>`,
      })
  },
  'a file is asked for in place of one': (template, n) => {
    const part = pick(fileParts(template), n)
    if (part) part.file = { left: 'theirs' }
  },
}

/** Pages of a template that may lead to files. */
const pagesOf = (template: Template): { blocks: Block[] }[] => [
  template.home,
  ...everyItem(template).filter(({ kind }) => kind === 'page'),
]

/** What instructors do to files. Whatever they put in is called by a word that is found again. */
export const fileEdits: Record<string, (at: Standing, n: number, word: string) => void> = {
  'puts in a file of theirs': (at, n, word) => {
    const item = pick(
      everyCourseItem(at.course).filter(({ item }) => item.kind === 'file'),
      n,
    )?.item
    if (item)
      at.edit([
        {
          change: 'set-item',
          id: item.id,
          fields: { file: { name: `${word}.pdf`, content: (n % 9).toString().repeat(64) } },
        },
      ])
  },
  'takes a file out': (at, n) => {
    const item = pick(
      everyCourseItem(at.course).filter(({ item }) => item.kind === 'file'),
      n,
    )?.item
    if (item) at.edit([{ change: 'set-item', id: item.id, fields: { file: null } }])
  },
}
