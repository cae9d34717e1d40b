import { defineCheck, htmlOf, imagesOf, type Found } from '../remark.ts'

export const imageNone = defineCheck({
  id: 'image-none',
  severity: 'error',
  title: 'Images that pages show are there',
  messages: {
    gone: 'The image {image} is not among those of this template, so that courses would show none: put it in again, or take it out of the text.',
    'house-text':
      'The house text “{title}” shows the image {image} of a template. House texts bring no images along, so courses would show none: take it out.',
  },
  *find({ template, pages }): Generator<Found> {
    const held = new Set(template.assets.map(({ fileName }) => fileName))
    for (const page of pages)
      for (const block of page.blocks)
        for (const image of new Set(htmlOf(block).flatMap(imagesOf)))
          if (!held.has(image))
            yield { part: page.key, block: block.key, message: 'gone', values: { image } }
    for (const { title, revisions } of template.houseTexts)
      for (const image of imagesOf(revisions.at(-1)?.html ?? ''))
        yield { part: null, message: 'house-text', values: { title, image } }
  },
})
