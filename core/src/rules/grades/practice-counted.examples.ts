import type { RuleExamples } from '../rule.ts'

export const examples: RuleExamples = {
  passes: [
    { title: 'no practice', change: () => {} },
    {
      title: 'practice outside the grade',
      change: ({ module, item }) =>
        void module('week', 2).children.push({
          ...item('quiz', 2),
          id: 'own',
          name: 'Practice quiz',
          work: { practice: true },
          recordedAs: undefined,
        }),
    },
  ],
  fails: [
    {
      title: 'a practice quiz among the others',
      change: ({ module, item }) =>
        void module('week', 2).children.push({
          ...item('quiz', 2),
          id: 'own',
          name: 'Practice quiz: lights',
          work: {},
          recordedAs: undefined,
        }),
      evidence: '20 points',
    },
    {
      title: 'the template wants it as practice',
      change: ({ template, item }) => {
        for (const part of template.parts)
          if (part.kind === 'module')
            for (const inner of part.items) if (inner.key === 'quiz') inner.settings.practice = true
        item('quiz', 2).points = 15
      },
      evidence: '15 points',
    },
  ],
}
