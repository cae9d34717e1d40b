import { analysePage, wordDifference, type WordRun } from '../page/index.ts'
import type { KeptBlockBody, Template } from '../template/index.ts'
import { compareFields, same, type Tell } from './change.ts'
import { compareBlocks } from './compareBlocks.ts'
import { movedKeys, placeWords } from './order.ts'
import type { CalledThenAndNow } from './words.ts'

interface Entry {
  key: string
  title?: string
  name?: string
  label?: string
  text?: string
  alternativeText?: string
  fileName?: string
  /** Of an image: a drawing or a photograph. */
  svg?: string | undefined
  base64?: string | undefined
  /** Of a file. */
  content?: string
  words?: string | undefined
  /** Of a house text. */
  revisions?: readonly { html: string }[]
  /** Of a kept block. */
  block?: KeptBlockBody
}
const nameOfEntry = (entry: Entry): string =>
  entry.title ??
  entry.name ??
  entry.label ??
  entry.text ??
  (entry.alternativeText || entry.fileName || 'without a name')

/** Lists of a template that hold entries with keys, and what an entry of each is called. */
const lists: readonly (readonly [word: string, of: (template: Template) => readonly Entry[]])[] = [
  ['navigation entry', ({ navigation }) => navigation],
  ['grade category', ({ grading }) => grading.categories],
  ['rubric', ({ rubrics }) => rubrics],
  ['course outcome', ({ outcomes }) => outcomes],
  ['house text', ({ houseTexts }) => houseTexts],
  ['image', ({ assets }) => assets],
  ['file', ({ files }) => files],
  ['kept block', ({ keptBlocks }) => keptBlocks],
]

/** Fields that are no words: told as another picture, or by what they say. */
const notWords = new Set([
  'key',
  'svg',
  'base64',
  'revisions',
  'block',
  'content',
  'bytes',
  'words',
  'fields',
])

const textOf = (html: string): string =>
  analysePage(html)
    .paragraphs.map(({ text }) => text)
    .join('\n')

/** What changed in an entry, in words, and in its text where it has one. */
const changesIn = (was: Entry, is: Entry, called: CalledThenAndNow) => {
  const words: string[] = []
  const fields = Object.keys({ ...was, ...is }).filter((field) => !notWords.has(field))
  compareFields(was, is, fields, called, (told) => words.push(told))
  if (was.svg !== is.svg || was.base64 !== is.base64) words.push('another picture')
  const [before, after] = [was, is].map(({ revisions }) => textOf(revisions?.at(-1)?.html ?? ''))
  const textWas = was.words ?? before ?? ''
  const textIs = is.words ?? after ?? ''
  const text = textWas === textIs ? null : wordDifference(textWas, textIs)
  if (was.content !== is.content) words.push(text ? 'another file, reworded' : 'another file')
  else if (text) words.push('reworded')
  else if (!same(was.revisions, is.revisions)) words.push('in force from another day')
  const inBlock: { words: string; text: readonly WordRun[] | null }[] = []
  if (was.block && is.block)
    compareBlocks([was.block], [is.block], called, (_, told, runs = null) =>
      inBlock.push({ words: told, text: runs }),
    )
  return {
    words: [...words, ...inBlock.map((told) => told.words)].join('; '),
    text: text ?? inBlock.find((told) => told.text)?.text ?? null,
  }
}

const compareList = (
  word: string,
  before: readonly Entry[],
  after: readonly Entry[],
  called: CalledThenAndNow,
  tell: Tell,
): void => {
  const nameOf = (key: string): string => {
    const entry = after.find((other) => other.key === key)
    return entry ? `“${nameOfEntry(entry)}”` : 'one'
  }
  for (const entry of before)
    if (!after.some(({ key }) => key === entry.key))
      tell('list-removed', `${word} “${nameOfEntry(entry)}” taken out`)
  for (const entry of after) {
    const was = before.find(({ key }) => key === entry.key)
    if (!was) tell('list-added', `${word} ${nameOf(entry.key)} added`)
    else if (!same(was, entry)) {
      const { words, text } = changesIn(was, entry, called)
      tell('list-changed', `${word} ${nameOf(entry.key)}: ${words || 'changed'}`, text)
    }
  }
  for (const key of movedKeys(before, after))
    tell('list-changed', `${word} ${nameOf(key)} moved ${placeWords(after, key, nameOf)}`)
}

/** Compares what a template lists beside its parts: navigation, grade categories, rubrics, outcomes, texts, images. */
export const compareLists = (
  before: Template,
  after: Template,
  called: CalledThenAndNow,
  tell: Tell,
): void => {
  for (const [word, of] of lists) compareList(word, of(before), of(after), called, tell)
}

type Policy = Template['policies'][number]
const policyWords = (policy: Policy | undefined): string => {
  if (!policy) return 'as it comes'
  if (policy.off) return 'off'
  return `set${policy.strength ? ` to ${policy.strength}` : ''}`
}

/** Compares what a template says of single rules. */
export const comparePolicies = (
  before: readonly Policy[],
  after: readonly Policy[],
  { after: called }: CalledThenAndNow,
  tell: Tell,
): void => {
  for (const rule of new Set([...before, ...after].map((policy) => policy.rule))) {
    const [was, is] = [before, after].map((list) => list.find((policy) => policy.rule === rule))
    if (!same(was, is))
      tell('list-changed', `the rule “${called('rule', rule) ?? rule}” ${policyWords(is)}`)
  }
}
