import type { RuleExamples } from '../rule.ts'

export const examples: RuleExamples = {
  passes: [
    { title: 'told once', change: () => {} },
    {
      title: 'told twice alike, letters aside',
      change: ({ item }) =>
        void (item('welcome').html += '<p>Office hours: tuesdays 10 to 11, Room 4.</p>'),
    },
  ],
  fails: [
    {
      title: 'two office hours',
      change: ({ item }) => void (item('welcome').html += '<p>Office hours: Fridays at noon</p>'),
      evidence: '“Fridays at noon” (Welcome to NAV 110)',
    },
    {
      title: 'an old address of the instructor',
      change: ({ item }) =>
        void (item('welcome').html += '<p>Write to sdrake@oldmail.example.</p>'),
      evidence: '“sunniva.drake@kestrelsound.example” (the roster)',
    },
  ],
}
