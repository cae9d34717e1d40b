import type { RuleExamples } from '../rule.ts'

export const examples: RuleExamples = {
  passes: [
    { title: 'no schedule is written', change: () => {} },
    {
      title: 'the schedule says what is set',
      change: ({ item }) =>
        void (item('welcome').html +=
          `<ul><li>${item('assignment', 2).name}: due September 13</li></ul>`),
    },
    {
      title: 'a line with several dates',
      change: ({ item }) =>
        void (item('welcome').html +=
          `<p>${item('assignment', 2).name}: begun September 7, handed in September 11.</p>`),
    },
  ],
  fails: [
    {
      title: 'the syllabus says another day',
      change: ({ item }) =>
        void (item('welcome').html +=
          `<ul><li>${item('assignment', 2).name}: due September 11</li></ul>`),
      evidence: 'September 11',
    },
    {
      title: 'the setting was moved and the page was not',
      change: ({ item }) => {
        item('welcome').html += `<p>${item('quiz', 3).name} closes on September 20.</p>`
        item('quiz', 3).dueAt = '2026-09-22T02:59:00Z'
      },
      evidence: 'September 20',
    },
  ],
}
