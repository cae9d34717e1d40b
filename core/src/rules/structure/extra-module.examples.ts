import { courseModule } from '../example/courseParts.ts'
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
          course.modules.push(courseModule(id, name))
      },
    },
  ],
  fails: [
    {
      title: 'a module of the instructor’s own',
      change: ({ course }) => void course.modules.push(courseModule('own', 'Sea stories')),
      evidence: 'Sea stories',
    },
    {
      title: 'two of them',
      change: ({ course }) =>
        void course.modules.push(
          courseModule('a', 'Song book'),
          courseModule('b', 'Galley rota', [], { published: false }),
        ),
      evidence: 'Galley rota',
    },
  ],
}
