import type { RuleExamples } from '../rule.ts'
import type { CourseQuestion } from '../../course/index.ts'

const sample: CourseQuestion = {
  id: 'q-sample',
  body: {
    kind: 'true-or-false',
    text: '<p>This question is an example: a light that flashes red marks the port hand.</p>',
    points: 4,
    right: true,
  },
}

export const examples: RuleExamples = {
  passes: [
    { title: 'samples that have given way', change: () => {} },
    {
      title: 'a sample worded for the course',
      change: ({ item }) =>
        void item('quiz', 2).questions?.push({
          ...sample,
          body: { ...sample.body, text: '<p>In our harbour a red light marks the port hand.</p>' },
        }),
    },
    {
      title: 'a sample in a week that has not begun',
      asOf: '2026-08-25',
      change: ({ item }) => void item('quiz', 4).questions?.push(structuredClone(sample)),
    },
  ],
  fails: [
    {
      title: 'the sample as it came',
      change: ({ item }) => void item('quiz', 2).questions?.push(structuredClone(sample)),
      evidence: '“This question is an example: a light that …”',
    },
    {
      title: 'the sample as a platform writes it',
      change: ({ item }) =>
        void item('quiz', 2).questions?.push({
          ...sample,
          body: {
            ...sample.body,
            text: '<p class="body" id="p1">This question is an example: a light that flashes red marks the port&#32;hand.</p>',
          },
        }),
      evidence: '“This question is an example: a light that …”',
    },
  ],
}
