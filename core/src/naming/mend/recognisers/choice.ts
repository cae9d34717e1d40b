import { foldName } from '../../fold.ts'
import { labelLikeness } from '../labelledNumbers.ts'
import type { Recogniser } from './recogniser.ts'

/** One of the words that the format lists. */
export const choice: Recogniser = ({ field, step }, tokens, _around, add) => {
  for (const listed of (step.style ?? '').split('|').map((text) => text.trim())) {
    const word = foldName(listed).text
    tokens.forEach((token, at) => {
      const likeness = token.kind === 'word' ? labelLikeness(token.text, word) : null
      if (likeness === null || (likeness !== 'same' && token.text.length <= 1)) return
      add(
        field,
        field,
        likeness === 'same' ? 'plain' : likeness,
        { from: at, to: at + 1 },
        listed,
        likeness === 'same' ? 3 : 2.4,
      )
    })
  }
}
