import type { RuleExamples } from '../rule.ts'

export const examples: RuleExamples = {
  passes: [
    { title: 'everything once', change: () => {} },
    {
      title: 'a quiz the instructor may duplicate',
      change: ({ template, module, item }) => {
        for (const part of template.parts)
          if (part.kind === 'module')
            for (const inner of part.items)
              if (inner.key === 'quiz') inner.may = { duplicate: true }
        module('week', 2).children.push({ ...item('quiz', 2), id: 'twin', recordedAs: undefined })
      },
    },
  ],
  fails: [
    {
      title: 'the overview twice',
      change: ({ module, item }) =>
        void module('week', 2).children.push({
          ...item('week-overview', 2),
          id: 'twin',
          recordedAs: undefined,
        }),
      evidence: 'Week 2 overview',
    },
    {
      title: 'a copy with its mark',
      change: ({ module, item }) =>
        void module('week', 3).children.push({
          ...item('checklist', 3),
          id: 'twin',
          name: 'Copy of Week 3 checklist',
          recordedAs: undefined,
        }),
      evidence: 'Copy of Week 3 checklist',
    },
  ],
}
