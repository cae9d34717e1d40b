import type { RuleExamples } from '../rule.ts'

export const examples: RuleExamples = {
  passes: [
    { title: 'a file is linked', change: () => {} },
    {
      title: 'the page itself is the syllabus',
      change: ({ item }) =>
        void (item('syllabus').html =
          `<p>${'The course runs for eight weeks and ends at sea. '.repeat(10)}</p>`),
    },
  ],
  fails: [
    {
      title: 'a page with one line',
      change: ({ item }) => void (item('syllabus').html = '<p>Will be handed out in class.</p>'),
      evidence: '6 words, no file',
    },
    {
      title: 'an empty page',
      change: ({ item }) => void (item('syllabus').html = ''),
      evidence: '0 words, no file',
    },
  ],
}
