import { exampleTemplate } from '../rules/example/exampleCourse.ts'
import {
  isModule,
  newItem,
  type Item,
  type Template,
  type TemplateFile,
} from '../template/index.ts'

/** A file of which nothing matters but that it is another one for every number. */
export const exampleFile = (key: string, n = 0): TemplateFile => ({
  key,
  title: `Handout ${n}`,
  fileName: `handout ${n}.docx`,
  content: n.toString(16).padStart(4, '0').repeat(16),
  bytes: 1000 + n,
  licence: '',
  fields: [],
  words: `The handout in wording ${n}`,
})

/** A form with fields of a course in it. */
export const exampleForm = (key: string, n = 0): TemplateFile => ({
  ...exampleFile(key, n),
  fields: ['{code}', '{term}'],
  words: `The form ${n} for {code} in {term}\nWhat do you teach?`,
})

/** A file part of each way of being left to the instructor: one fixed, one proposed, a form, and one that is asked for. */
export const exampleFileParts = (): { files: TemplateFile[]; items: Item[] } => ({
  files: [
    exampleFile('given-timetable', 1),
    exampleFile('given-slides', 2),
    exampleForm('given-form', 3),
  ],
  items: [
    { ...newItem('file', 'given-timetable', 'Timetable'), file: { key: 'given-timetable' } },
    {
      ...newItem('file', 'given-slides', 'First slides of {code}'),
      file: { key: 'given-slides', left: 'proposed' },
    },
    { ...newItem('file', 'given-form', 'The form'), file: { key: 'given-form', left: 'theirs' } },
    { ...newItem('file', 'asked-picture', 'A picture of you'), file: { left: 'theirs' } },
  ],
})

/** The example with such parts in its first module. @param change what is different in it */
export const templateHandingOut = (
  change: (template: Template) => void = () => undefined,
): Template => {
  const template = exampleTemplate()
  const { files, items } = exampleFileParts()
  template.files.push(...files)
  const [first] = template.parts
  if (first && isModule(first)) first.items.push(...items)
  change(template)
  return template
}
