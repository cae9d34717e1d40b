import type { Template } from '../template/index.ts'
import { same, type Tell } from './change.ts'
import { movedKeys, placeWords } from './order.ts'

interface Entry {
  key: string
  title?: string
  name?: string
  label?: string
  text?: string
}
const nameOfEntry = ({ key, label, name, text, title }: Entry): string =>
  title ?? name ?? label ?? text ?? key

/** Lists of a template that hold entries with keys, and what an entry of each is called. */
const lists: readonly (readonly [word: string, of: (template: Template) => readonly Entry[]])[] = [
  ['navigation entry', ({ navigation }) => navigation],
  ['grade category', ({ grading }) => grading.categories],
  ['rubric', ({ rubrics }) => rubrics],
  ['course outcome', ({ outcomes }) => outcomes],
  ['house text', ({ houseTexts }) => houseTexts],
  ['image', ({ assets }) => assets],
  ['kept block', ({ keptBlocks }) => keptBlocks],
]

const compareList = (
  word: string,
  before: readonly Entry[],
  after: readonly Entry[],
  tell: Tell,
): void => {
  const nameOf = (key: string): string =>
    `“${nameOfEntry(after.find((entry) => entry.key === key) ?? { key })}”`
  for (const entry of before)
    if (!after.some(({ key }) => key === entry.key))
      tell('list-removed', `${word} “${nameOfEntry(entry)}” taken out`)
  for (const entry of after) {
    const was = before.find(({ key }) => key === entry.key)
    if (!was) tell('list-added', `${word} ${nameOf(entry.key)} added`)
    else if (!same(was, entry)) tell('list-changed', `${word} ${nameOf(entry.key)} changed`)
  }
  for (const key of movedKeys(before, after))
    tell('list-changed', `${word} ${nameOf(key)} moved ${placeWords(after, key, nameOf)}`)
}

/** Compares what a template lists beside its parts: navigation, grade categories, rubrics, outcomes, texts, images. */
export const compareLists = (before: Template, after: Template, tell: Tell): void => {
  for (const [word, of] of lists) compareList(word, of(before), of(after), tell)
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
  tell: Tell,
): void => {
  for (const rule of new Set([...before, ...after].map((policy) => policy.rule))) {
    const [was, is] = [before, after].map((list) => list.find((policy) => policy.rule === rule))
    if (!same(was, is)) tell('list-changed', `rule ${rule} ${policyWords(is)}`)
  }
}
