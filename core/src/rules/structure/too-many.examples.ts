import { courseModule } from '../example/courseParts.ts'
import type { RuleExamples } from '../rule.ts'

export const examples: RuleExamples = {
  passes: [
    { title: 'as deployed', change: () => {} },
    {
      title: 'many, but hidden',
      change: ({ module, item }) =>
        void module('week', 2).children.push(
          ...Array.from({ length: 40 }, (_, i) => ({
            ...item('checklist', 2),
            id: `own-${i}`,
            name: `Sheet ${i}`,
            published: false,
            recordedAs: undefined,
          })),
        ),
    },
  ],
  fails: [
    {
      title: 'forty sheets',
      change: ({ module, item }) =>
        void module('week', 2).children.push(
          ...Array.from({ length: 40 }, (_, i) => ({
            ...item('checklist', 2),
            id: `own-${i}`,
            name: `Sheet ${i}`,
            recordedAs: undefined,
          })),
        ),
      evidence: '45 items',
    },
    {
      title: 'in a module of the instructor’s own',
      change: ({ course, item }) =>
        void course.modules.push(
          courseModule(
            'own',
            'All my sheets',
            Array.from({ length: 31 }, (_, i) => ({
              ...item('checklist', 2),
              id: `own-${i}`,
              name: `Sheet ${i}`,
              recordedAs: undefined,
            })),
          ),
        ),
      evidence: '31 items',
    },
  ],
}
