import type { RuleExamples } from '../rule.ts'

export const examples: RuleExamples = {
  passes: [
    { title: 'all items stand as deployed', change: () => {} },
    {
      title: 'a discussion that may go was removed',
      change: ({ module, item }) =>
        void module('week', 2).children.splice(
          module('week', 2).children.indexOf(item('quiz', 2)),
          1,
        ),
    },
    {
      title: 'an assignment does the discussion’s job, which the template accepts',
      change: ({ item }) => {
        const discussion = item('discussion', 2)
        delete discussion.recordedAs
        discussion.kind = 'assignment'
      },
    },
  ],
  fails: [
    {
      title: 'a part that may go is gone, and nobody said so',
      change: ({ template, module, item }) => {
        for (const part of template.parts)
          if (part.kind === 'module')
            for (const inner of part.items)
              if (inner.key === 'week-overview') inner.may = { remove: true }
        module('week', 2).children.splice(
          module('week', 2).children.indexOf(item('week-overview', 2)),
          1,
        )
      },
      evidence: 'nothing for Week 2 overview',
    },
    {
      title: 'the checklist of week 3 was deleted',
      change: ({ module }) => void module('week', 3).children.pop(),
      evidence: 'nothing for Week 3 checklist',
    },
    {
      title: 'the welcome page was deleted',
      change: ({ module, item }) =>
        void module('casting-off').children.splice(
          module('casting-off').children.indexOf(item('welcome')),
          1,
        ),
      evidence: 'nothing for Welcome to NAV 110',
    },
  ],
}
