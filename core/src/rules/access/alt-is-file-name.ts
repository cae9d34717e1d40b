import { z } from 'zod'
import { oncePerPage } from '../../page/index.ts'
import { defineRule } from '../rule.ts'
import { pageFaults } from '../pageFaults.ts'

const fileName = /^\s*[\w\s().-]{1,200}\.(?:jpe?g|png|gif|svg|webp|bmp|tiff?|heic)\s*$/i
const cameraName = /^\s*(?:img|image|dsc|dscn|pic|photo|scan|screenshot|untitled)[\s_-]*\d*\s*$/i

const faultsIn = oncePerPage((page) =>
  page.images.flatMap(({ alternativeText: text }) =>
    text !== null && (fileName.test(text) || cameraName.test(text)) ? [text.trim()] : [],
  ),
)

export const altIsFileName = defineRule({
  id: 'alt-is-file-name',
  group: 'access',
  title: 'Alternative text says what the image shows',
  why: 'A screen reader reads “DSC 0412 jpg” aloud, which tells nobody what is seen.',
  wcag: ['1.1.1'],
  untold:
    'Whether a description is a good one: only a file’s or a camera’s name is known not to be. Empty descriptions are told by the rule for missing ones.',
  strength: 'should',
  parameters: z.strictObject({}),
  mender: 'instructor',
  effortMinutes: 2,
  messages: {
    name: 'In “{item}” an image is described as “{seen}”{also}, which is a file’s name.',
  },
  check: (context) =>
    pageFaults(context, {
      applies: ({ page }) => page.images.some((image) => (image.alternativeText ?? '') !== ''),
      faults: ({ page }) => faultsIn(page),
      message: 'name',
      expected: 'what the image shows, in words',
    }),
})
