import type { ItemKind } from './words.ts'

type Kind = ItemKind | 'module'
const words: Readonly<Record<Kind, { one: string; many: string; article: 'a' | 'an' }>> = {
  module: { one: 'module', many: 'modules', article: 'a' },
  page: { one: 'page', many: 'pages', article: 'a' },
  file: { one: 'file', many: 'files', article: 'a' },
  'web-link': { one: 'web link', many: 'web links', article: 'a' },
  discussion: { one: 'discussion', many: 'discussions', article: 'a' },
  assignment: { one: 'assignment', many: 'assignments', article: 'an' },
  assessment: { one: 'assessment', many: 'assessments', article: 'an' },
  event: { one: 'event', many: 'events', article: 'an' },
  'tool-link': { one: 'tool link', many: 'tool links', article: 'a' },
  heading: { one: 'heading', many: 'headings', article: 'a' },
}
const known: ReadonlyMap<string, (typeof words)[Kind]> = new Map(Object.entries(words))

/** What people call a kind of part, e.g. `web link`; a word that is no kind is given back as it is. */
export const kindWords = (kind: string): string => known.get(kind)?.one ?? kind

/** A kind with its article, e.g. `an assignment`. */
export const aKind = (kind: string): string => {
  const { one, article } = known.get(kind) ?? { one: kind, article: 'a' }
  return `${article} ${one}`
}

/** So many of a kind, e.g. `1 page`, `16 assessments`. */
export const countOfKind = (count: number, kind: string): string => {
  const { one, many } = known.get(kind) ?? { one: kind, many: kind }
  return `${count} ${count === 1 ? one : many}`
}

/** Whether the date of an item is when it is held; otherwise work is due then. */
export const isHeld = ({ kind }: { kind: string }): boolean => kind === 'event'
