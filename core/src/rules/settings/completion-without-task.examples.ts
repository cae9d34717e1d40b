import type { RuleExamples } from '../rule.ts'

export const examples: RuleExamples = {
  passes: [
    {
      title: 'completion is not tracked',
      change: ({ module }) => void (module('week', 2).children = []),
    },
    {
      title: 'a task in every week',
      change: ({ course }) =>
        void (course.settings = { ...course.settings, completionTracked: true }),
    },
  ],
  fails: [
    {
      title: 'a week with pages only',
      change: ({ course, module }) => {
        course.settings = { ...course.settings, completionTracked: true }
        module('week', 2).children = module('week', 2).children.filter(
          (item) => item.kind === 'page',
        )
      },
      evidence: '2 items, no task',
    },
    {
      title: 'all tasks of the week are hidden',
      change: ({ course, module }) => {
        course.settings = { ...course.settings, completionTracked: true }
        for (const item of module('week', 3).children)
          if (item.kind !== 'page') item.published = false
      },
      evidence: '4 items, no task',
    },
  ],
}
