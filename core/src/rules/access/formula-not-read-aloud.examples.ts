import type { RuleExamples } from '../rule.ts'

const horizon = (attributes: string) =>
  `<p>How far you see: <math${attributes}><mi>d</mi><mo>≈</mo><mn>2.08</mn><msqrt><mi>h</mi></msqrt></math></p>`

export const examples: RuleExamples = {
  passes: [
    {
      title: 'a formula with words',
      change: ({ item }) =>
        void (item('week-overview', 3).html += horizon(
          ' alttext="d is about 2.08 times the square root of h"',
        )),
    },
    {
      title: 'a formula that a label names',
      change: ({ item }) =>
        void (item('week-overview', 3).html += horizon(
          ' aria-label="d is about 2.08 times the square root of h"',
        )),
    },
    {
      title: 'one sign',
      change: ({ item }) =>
        void (item('week-overview', 3).html += '<p>The height <math><mi>h</mi></math>.</p>'),
    },
    {
      title: 'a picture of a formula with words, and one that is decoration',
      change: ({ item }) =>
        void (item('week-overview', 3).html +=
          '<img src="equation-2.png" alt="d is about 2.08 times the square root of h"><img src="wave.png" alt="">'),
    },
  ],
  fails: [
    {
      title: 'a formula without words',
      change: ({ item }) => void (item('week-overview', 3).html += horizon('')),
      evidence: 'd ≈ 2.08 h',
    },
    {
      title: 'a picture of a formula that is marked as decoration',
      change: ({ item }) =>
        void (item('week-overview', 3).html += '<img src="/files/equation-2.png" alt="">'),
      evidence: '/files/equation-2.png',
    },
  ],
}
