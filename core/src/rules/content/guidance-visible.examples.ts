import type { RuleExamples } from '../rule.ts'

export const examples: RuleExamples = {
  passes: [
    { title: 'the notes were taken out', change: () => {} },
    {
      title: 'the note of a week nobody can reach yet',
      change: ({ item, module }) => {
        module('week', 6).published = false
        item('week-overview', 6).html +=
          '<div data-wicker-block="advice"><p><strong>Note to the instructor.</strong></p><p>A short recording of yourself works well here.</p></div>'
      },
    },
    {
      title: 'more than half of it rewritten into the instructor’s own words',
      change: ({ item }) =>
        void (item('week-overview', 3).html +=
          '<div data-wicker-block="advice"><p>Watch a recording of the tide turning before class on Tuesday and bring your notes.</p></div>'),
    },
  ],
  fails: [
    {
      title: 'the note still stands in an open week',
      change: ({ item }) =>
        void (item('week-overview', 3).html +=
          '<div data-wicker-block="advice"><p><strong>Note to the instructor.</strong></p><p>A short recording of yourself works well here.</p></div>'),
      evidence: 'Note to the instructor. A short recording of yourself works well here.',
    },
    {
      title: 'the same without its marker, word for word',
      change: ({ item }) =>
        void (item('week-overview', 3).html +=
          '<p><strong>Note to the instructor.</strong></p><p>A short recording of yourself works well here.</p>'),
      evidence: 'Note to the instructor. A short recording of yourself works well here.',
    },
  ],
}
