import type { RuleExamples } from '../rule.ts'

export const examples: RuleExamples = {
  passes: [
    { title: 'modules side by side', change: () => {} },
    {
      title: 'a day within a week',
      change: ({ module }) =>
        void module('week', 2).modules.push({
          id: 'd',
          name: 'Day 1',
          published: true,
          opensAt: null,
          items: [],
          modules: [],
        }),
    },
  ],
  fails: [
    {
      title: 'three levels',
      change: ({ module }) =>
        void module('week', 2).modules.push({
          id: 'd',
          name: 'Day 1',
          published: true,
          opensAt: null,
          items: [],
          modules: [
            { id: 'e', name: 'Morning', published: true, opensAt: null, items: [], modules: [] },
          ],
        }),
      evidence: 'level 3',
    },
    {
      title: 'four levels',
      change: ({ module }) =>
        void module('week', 3).modules.push({
          id: 'a',
          name: 'A',
          published: true,
          opensAt: null,
          items: [],
          modules: [
            {
              id: 'b',
              name: 'B',
              published: true,
              opensAt: null,
              items: [],
              modules: [
                { id: 'c', name: 'C', published: true, opensAt: null, items: [], modules: [] },
              ],
            },
          ],
        }),
      evidence: 'level 4',
    },
  ],
}
