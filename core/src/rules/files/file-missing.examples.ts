import type { RuleExamples } from '../rule.ts'

export const examples: RuleExamples = {
  passes: [
    { title: 'as deployed', change: () => {} },
    {
      title: 'another file',
      change: ({ item }) => {
        item('tide-table').file = { name: 'mine.pdf', content: 'a'.repeat(64) }
      },
    },
    {
      title: 'an address in its place',
      change: ({ item }) =>
        void Object.assign(item('tide-table'), {
          file: null,
          target: 'https://tides.kestrelsound.example/table',
        }),
    },
  ],
  fails: [
    {
      title: 'taken out',
      change: ({ item }) => void (item('tide-table').file = null),
      evidence: 'no file',
    },
    {
      title: 'the form taken out',
      change: ({ item }) => void (item('passage-form').file = null),
      evidence: 'no file',
    },
  ],
}
