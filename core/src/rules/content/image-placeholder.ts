import { z } from 'zod'
import { withoutQuery } from '../../document/index.ts'
import { defineRule } from '../rule.ts'
import { pageFaults } from '../pageFaults.ts'

const file =
  /(?:^|[/_.-])(?:placeholder|dummy|sample-image|your-(?:image|photo|picture)|image-here|no-image|stock-photo)[^/]{0,80}$/i
const words =
  /\b(?:placeholder|your (?:image|photo|picture) here|insert (?:image|photo|picture)|image goes here)\b/i

export const imagePlaceholder = defineRule({
  id: 'image-placeholder',
  group: 'page content',
  title: 'No placeholder image is left',
  why: 'A grey box that says “your photo here” is the first thing students see.',
  untold:
    'Pictures that merely look like placeholders: only their names and descriptions are read.',
  strength: 'should',
  parameters: z.strictObject({}),
  mender: 'instructor',
  onlyInCourse: true,
  effortMinutes: 5,
  messages: { placeholder: '“{item}” still shows a placeholder image: {seen}{also}.' },
  check: (context) =>
    pageFaults(context, {
      applies: ({ page }) => page.images.length > 0,
      faults: ({ page }) =>
        page.images
          .filter(
            (image) =>
              file.test(withoutQuery(image.source)) || words.test(image.alternativeText ?? ''),
          )
          .map((image) => image.alternativeText || image.source),
      message: 'placeholder',
      expected: 'an image of the course',
      evidence: 'value',
    }),
})
