import { courseModule } from '../example/courseParts.ts'
import type { RuleExamples } from '../rule.ts'

export const examples: RuleExamples = {
  passes: [
    { title: 'no modules inside modules', change: () => {} },
    {
      title: 'a day within its week',
      change: ({ module }) =>
        void module('week', 3).children.push(
          courseModule('inner', 'Tuesday group, 15–16 September'),
        ),
    },
  ],
  fails: [
    {
      title: 'a stretch of October inside a week of September',
      change: ({ module }) =>
        void module('week', 3).children.push(courseModule('inner', 'Drills, Oct 5 – Oct 9')),
      evidence: 'Oct 5 – Oct 9',
    },
    {
      title: 'a stretch that runs on past its week',
      change: ({ module }) =>
        void module('week', 3).children.push(courseModule('inner', 'Passage, 9/18 - 9/25')),
      evidence: '9/18 - 9/25',
    },
  ],
}
