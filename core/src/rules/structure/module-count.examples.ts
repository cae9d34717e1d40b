import { courseModule } from '../example/courseParts.ts'
import type { RuleExamples } from '../rule.ts'

export const examples: RuleExamples = {
  passes: [
    { title: 'one module for each week', change: () => {} },
    {
      title: 'three units that cover all weeks once, which the template accepts',
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
      title: 'a second module for week 2',
      change: ({ course }) => void course.modules.push(courseModule('x', 'Week 2 again')),
      evidence: 'Week 2 again',
    },
    {
      title: 'a ninth week in an eight-week course',
      change: ({ course }) => void course.modules.push(courseModule('x', 'Week 9')),
      evidence: 'Week 9',
    },
  ],
}
