import { everyItem, type Item, type Question, type Template } from '@wickerframe/core'

/** The assessment under a key; null where it is something else, or not there. */
export const assessmentOf = (template: Template | null, key: string): Item | null =>
  (template &&
    everyItem(template).find((item) => item.key === key && item.kind === 'assessment')) ||
  null

export const questionsOfPart = (template: Template | null, key: string): readonly Question[] =>
  assessmentOf(template, key)?.questions?.list ?? []
