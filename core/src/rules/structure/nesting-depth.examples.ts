import { courseModule } from '../example/courseParts.ts'
import type { RuleExamples } from '../rule.ts'

export const examples: RuleExamples = {
  passes: [
    { title: 'modules side by side', change: () => {} },
    {
      title: 'a day within a week',
      change: ({ module }) => void module('week', 2).children.push(courseModule('d', 'Day 1')),
    },
  ],
  fails: [
    {
      title: 'three levels',
      change: ({ module }) =>
        void module('week', 2).children.push(
          courseModule('d', 'Day 1', [courseModule('e', 'Morning')]),
        ),
      evidence: 'level 3',
    },
    {
      title: 'four levels',
      change: ({ module }) =>
        void module('week', 3).children.push(
          courseModule('a', 'A', [courseModule('b', 'B', [courseModule('c', 'C')])]),
        ),
      evidence: 'level 4',
    },
  ],
}
