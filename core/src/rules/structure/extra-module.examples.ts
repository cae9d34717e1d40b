import type { RuleExamples } from '../rule.ts'

export const examples: RuleExamples = {
  passes: [
    { title: 'the modules of the template', change: () => {} },
    {
      title: 'units in place of weeks, which the template accepts',
      change: ({ course }) => {
        const start = course.modules[0]
        course.modules = start ? [start] : []
        for (const [id, name] of [
          ['u1', 'Unit 1 · Weeks 1–2'],
          ['u2', 'Unit 2 · Weeks 3-4'],
          ['u3', 'Unit 3 (weeks 5 to 8)'],
        ] as const)
          course.modules.push({ id, name, published: true, opensAt: null, items: [], modules: [] })
      },
    },
  ],
  fails: [
    {
      title: 'a module of the instructor’s own',
      change: ({ course }) =>
        void course.modules.push({
          id: 'own',
          name: 'Sea stories',
          published: true,
          opensAt: null,
          items: [],
          modules: [],
        }),
      evidence: 'Sea stories',
    },
    {
      title: 'two of them',
      change: ({ course }) =>
        void course.modules.push(
          { id: 'a', name: 'Song book', published: true, opensAt: null, items: [], modules: [] },
          { id: 'b', name: 'Galley rota', published: false, opensAt: null, items: [], modules: [] },
        ),
      evidence: 'Galley rota',
    },
  ],
}
