import { analysePage } from '../../page/index.ts'
import { leftAs } from '../../template/index.ts'
import { defineCheck, htmlOf, type Found } from '../remark.ts'

export const alternativeTextMissing = defineCheck({
  id: 'alternative-text-missing',
  severity: 'error',
  title: 'Images and formulas say what they show',
  messages: {
    missing:
      'The image {image} has no alternative text. Say what it shows, or mark it as decoration.',
    formula: 'The formula {formula} has no words to be read aloud. Say how it is said.',
    video: 'The video “{title}” has no captions.',
    transcript: 'The video “{title}” has no transcript.',
  },
  *find(proof): Generator<Found> {
    for (const page of proof.pages)
      for (const block of page.blocks) {
        for (const html of htmlOf(block)) {
          const { images, formulas } = analysePage(html)
          for (const { text, alternativeText } of formulas)
            if (alternativeText === null && text.includes(' '))
              yield {
                part: page.key,
                block: block.key,
                message: 'formula',
                values: { formula: text },
                severity: 'warning',
              }
          for (const image of images)
            if (image.alternativeText === null)
              yield {
                part: page.key,
                block: block.key,
                message: 'missing',
                values: { image: image.source.slice(0, 60) || 'without an address' },
              }
        }
        if (block.kind !== 'video' || leftAs(block) === 'asked') continue
        if (!block.captions)
          yield {
            part: page.key,
            block: block.key,
            message: 'video',
            values: { title: block.title },
            severity: 'warning',
          }
        if (!block.transcript)
          yield {
            part: page.key,
            block: block.key,
            message: 'transcript',
            values: { title: block.title },
            severity: 'warning',
          }
      }
  },
})
