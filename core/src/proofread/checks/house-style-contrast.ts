import { colourPairs, houseColourWords } from '../../houseStyle/index.ts'
import { defineCheck, type Found } from '../remark.ts'

export const houseStyleContrast = defineCheck({
  id: 'house-style-contrast',
  severity: 'error',
  title: 'The colours of the house style can be read on one another',
  messages: {
    words:
      'The house style’s {words} stand out by {ratio} to 1; {needed} to 1 is needed. Take {instead}.',
  },
  *find({ template: { houseStyle } }): Generator<Found> {
    for (const { words, front, ground, ratio, needed, passes, instead } of houseStyle
      ? colourPairs(houseStyle.colours)
      : [])
      if (!passes)
        yield {
          part: null,
          message: 'words',
          values: {
            words,
            // Cut, not rounded: 4.499 does not meet 4.5.
            ratio: (Math.floor(ratio * 10) / 10).toFixed(1),
            needed: String(needed),
            instead: [
              ...(instead.front === null
                ? []
                : [`${instead.front} for ${houseColourWords[front]}`]),
              ...(instead.ground === null
                ? []
                : [`${instead.ground} for ${houseColourWords[ground]}`]),
            ].join(' or '),
          },
        }
  },
})
