import { firstWords } from '../template/index.ts'
import type { FieldStep } from './mergeCase.ts'

/**
 * The first words of the block or question that a step is about, by which people know it: as the template wants it, else as it was
 * deployed, else as it stands. Empty where it has none, as an image, and for a step about something else.
 */
export const blockWords = ({ field, wanted, base, present }: FieldStep): string => {
  if (!/^(?:block|question):/.test(field)) return ''
  for (const html of [wanted, base, present]) {
    const words = typeof html === 'string' ? firstWords(html) : ''
    if (words !== '') return words
  }
  return ''
}
