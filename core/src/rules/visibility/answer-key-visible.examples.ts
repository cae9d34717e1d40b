import type { ExampleCourse, RuleExamples } from '../rule.ts'

/** A page of the instructor’s own in this week. */
const named =
  (name: string) =>
  ({ module, item }: ExampleCourse): void =>
    void module('week', 3).children.push({
      ...item('week-overview', 3),
      id: 'own',
      name,
      recordedAs: undefined,
    })

export const examples: RuleExamples = {
  passes: [
    { title: 'no key in the course', change: () => {} },
    {
      title: 'the key of a week that is over',
      change: ({ module, item }) =>
        void module('week', 2).children.push({
          ...item('week-overview', 2),
          id: 'key',
          name: 'Answer key to quiz 2',
          recordedAs: undefined,
        }),
    },
    ...[
      'Answers to your questions',
      'Answers to frequently asked questions',
      'Saline solutions',
      'Lab 3: Saline solutions',
      'Solution of salt in water',
      'Nobody answers on channel 16',
    ].map((name) => ({ title: `“${name}” gives nothing away`, change: named(name) })),
  ],
  fails: [
    ...[
      'Answers',
      'Quiz 3 answers',
      'Quiz 3: Tides, answers',
      'Solutions to assignment 3',
      'Answers for the first problem set',
      'Week 3 solutions',
      'Model answers',
      'Worked solutions, chapter 3',
    ].map((name) => ({ title: `“${name}”`, change: named(name), evidence: name })),
    {
      title: 'the key of this week',
      change: ({ module, item }) =>
        void module('week', 3).children.push({
          ...item('week-overview', 3),
          id: 'key',
          name: 'Quiz 3 answer key',
          recordedAs: undefined,
        }),
      evidence: 'Quiz 3 answer key',
    },
    {
      title: 'solutions as a file',
      change: ({ module, item }) =>
        void module('week', 4).children.push({
          ...item('week-overview', 4),
          id: 'key',
          kind: 'file',
          html: null,
          name: 'Solutions',
          recordedAs: undefined,
        }),
      evidence: 'Solutions',
    },
  ],
}
