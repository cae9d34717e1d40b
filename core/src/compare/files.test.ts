import { expect, it } from 'vitest'
import { everyItem, type ItemFile, type Template } from '../template/index.ts'
import { exampleFile, templateHandingOut } from '../testing/exampleFiles.testing.ts'
import { compareTemplates } from './index.ts'

const handsOut =
  (key: string, file: ItemFile) =>
  (template: Template): void => {
    for (const item of everyItem(template)) if (item.key === key) item.file = file
  }
const told = (change: (template: Template) => void): string[] =>
  compareTemplates(templateHandingOut(), templateHandingOut(change)).map(
    ({ of, words }) => `${of}: ${words}`,
  )

it.each<[string, (template: Template) => void, string]>([
  [
    'another file for a part',
    handsOut('given-timetable', { key: 'given-slides' }),
    'Timetable: file “Handout 1”, now “Handout 2”',
  ],
  [
    'a file that may be replaced from now on',
    handsOut('given-timetable', { key: 'given-timetable', left: 'proposed' }),
    'Timetable: file “Handout 1”, now “Handout 1”, which may be replaced',
  ],
  [
    'a file that is asked for now',
    handsOut('given-form', { left: 'theirs' }),
    'The form: file “Handout 3”, to be filled in, now one of the instructor’s own',
  ],
])('%s is told in words', (_, change, words) => expect(told(change)).toContain(words))

it('another content under the same key is told as another file, with its words', () => {
  const changes = compareTemplates(
    templateHandingOut(),
    templateHandingOut((template) => {
      template.files = template.files.map((file) =>
        file.key === 'given-timetable' ? { ...exampleFile(file.key, 7), title: file.title } : file,
      )
    }),
  )
  expect(changes).toMatchObject([{ words: expect.stringContaining('another file, reworded') }])
  expect(changes[0]?.text?.some(({ text }) => text.includes('7'))).toBe(true)
})
