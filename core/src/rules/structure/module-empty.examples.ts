import { courseItem, courseModule } from '../example/courseParts.ts'
import type { RuleExamples } from '../rule.ts'

export const examples: RuleExamples = {
  passes: [
    { title: 'every module holds something', change: () => {} },
    {
      title: 'an empty module nobody can open',
      change: ({ module }) => Object.assign(module('week', 3), { children: [], published: false }),
    },
    {
      title: 'a module that nothing expects, called by a break of the term',
      change: ({ course, facts }) => {
        const [pause] = facts.term.breaks
        course.modules.push(courseModule('own', `Week 5 · ${pause?.name ?? ''}`, []))
      },
    },
  ],
  fails: [
    {
      title: 'a week was emptied',
      change: ({ module }) => void (module('week', 3).children = []),
      evidence: '0 items',
    },
    {
      title: 'a module of the instructor’s own with a heading only',
      change: ({ course }) =>
        void course.modules.push(
          courseModule('own', 'Extra', [courseItem('h', 'Later', { kind: 'heading' })]),
        ),
      evidence: '0 items',
    },
  ],
}
