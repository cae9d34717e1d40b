import type { RuleExamples } from '../rule.ts'

export const examples: RuleExamples = {
  passes: [
    { title: 'every module holds something', change: () => {} },
    {
      title: 'an empty module nobody can open',
      change: ({ module }) => Object.assign(module('week', 3), { items: [], published: false }),
    },
  ],
  fails: [
    {
      title: 'a week was emptied',
      change: ({ module }) => void (module('week', 3).items = []),
      evidence: '0 items',
    },
    {
      title: 'a module of the instructor’s own with a heading only',
      change: ({ course }) =>
        void course.modules.push({
          id: 'own',
          name: 'Extra',
          published: true,
          opensAt: null,
          modules: [],
          items: [
            {
              id: 'h',
              kind: 'heading',
              name: 'Later',
              published: true,
              opensAt: null,
              dueAt: null,
              closesAt: null,
              points: null,
              category: null,
              html: null,
              url: null,
              target: null,
              studentWork: false,
            },
          ],
        }),
      evidence: '0 items',
    },
  ],
}
