import type { ExampleCourse, RuleExamples } from '../rule.ts'

const blank =
  'Passage form for NAV 110\nFrom which harbour do you sail?\nAt what state of the tide do you leave?\nWho keeps the log?'

/** The form stands there with that text, read from the file. */
const says =
  (words: string, name = 'passage form.docx') =>
  ({ item, course }: ExampleCourse): void => {
    const content = 'e'.repeat(64)
    item('passage-form').file = { name, content }
    course.files = [{ id: 'f-1', name, url: '/files/f-1', restricted: false, content, words }]
  }
const answers =
  'From the old quay in Kestrel Sound.\nTwo hours before high water, so that the bar can be crossed.\nThe youngest of the watch keeps the log.'

export const examples: RuleExamples = {
  passes: [
    { title: 'filled in', change: says(`${blank}\n${answers}`) },
    { title: 'written anew, and called what it was', change: says(answers) },
    { title: 'blank while there is still time', asOf: '2026-08-01', change: says(blank) },
  ],
  fails: [
    {
      title: 'the very file that was given out',
      change: ({ item }) => {
        item('passage-form').file = { name: 'passage form.docx', content: '2'.repeat(64) }
      },
      evidence: '“passage form.docx”',
    },
    { title: 'as it was given out', change: says(blank), evidence: '“passage form.docx”' },
    {
      title: 'saved again, in another order of lines',
      change: says(blank.split('\n').reverse().join('\n'), 'NAV 110 passage.docx'),
      evidence: '“NAV 110 passage.docx”',
    },
    {
      title: 'only the name put in',
      change: says(`${blank}\nSunniva Drake`),
      evidence: '“passage form.docx”',
    },
  ],
}
