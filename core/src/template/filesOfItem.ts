import { handoutsIn, handoutTo, withHandoutLinks } from '../files/index.ts'
import { filesLedToBy, htmlFields, type Block } from './block.ts'
import type { Item } from './part.ts'

/** Keys of the files that a part hands out: itself, on its page, or in its questions. */
export const filesOfItem = ({
  file,
  blocks,
  questions,
}: Pick<Item, 'file' | 'blocks' | 'questions'>): ReadonlySet<string> =>
  new Set([
    ...(file?.key === undefined ? [] : [file.key]),
    ...blocks.flatMap((block) => [...filesLedToBy(block)]),
    ...(questions?.list ?? []).flatMap(({ body }) => handoutsIn(body.text)),
  ])

type Renamed = (key: string) => string
const htmlUnder = (html: string, now: Renamed): string =>
  withHandoutLinks(html, (key) => handoutTo(now(key)))

/** A block whose files go by other keys. */
export const blockWithFilesUnder = <Any extends Block>(block: Any, now: Renamed): Any => {
  const fields = Object.entries(block).map(([field, value]): [string, unknown] => [
    field,
    htmlFields.has(field) && typeof value === 'string' ? htmlUnder(value, now) : value,
  ])
  const copy = { ...block, ...Object.fromEntries(fields) }
  return copy.kind === 'document' ? { ...copy, files: copy.files.map(now) } : copy
}

/**
 * A part whose files go by other keys.
 * @param inPages the keys of those that its page and its questions lead to, where they are others
 */
export const withFilesUnder = (item: Item, now: Renamed, inPages: Renamed = now): Item => ({
  ...item,
  ...(item.file?.key === undefined ? {} : { file: { ...item.file, key: now(item.file.key) } }),
  blocks: item.blocks.map((block) => blockWithFilesUnder(block, inPages)),
  ...(item.questions
    ? {
        questions: {
          ...item.questions,
          list: item.questions.list.map((question) => ({
            ...question,
            body: { ...question.body, text: htmlUnder(question.body.text, inPages) },
          })),
        },
      }
    : {}),
})
