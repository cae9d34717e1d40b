import type { RuleExamples } from '../rule.ts'

export const examples: RuleExamples = {
  passes: [
    { title: 'as deployed', change: () => {} },
    {
      title: 'a proposal that was worded otherwise',
      change: ({ item }) => {
        const proposed = item('quiz', 2).questions?.find(({ body }) => body.kind === 'short-answer')
        if (proposed) proposed.body.points = 2
      },
    },
    { title: 'another order', change: ({ item }) => void item('quiz', 2).questions?.reverse() },
  ],
  fails: [
    {
      title: 'other words',
      change: ({ item }) => {
        const fixed = item('quiz', 2).questions?.find(({ body }) => body.kind === 'one-answer')
        if (fixed) fixed.body.text = '<p>When, do you think, does a neap tide come?</p>'
      },
      evidence: '“When, do you think, does a neap tide come?”',
    },
    {
      title: 'another answer is right',
      change: ({ item }) => {
        const fixed = item('quiz', 2).questions?.find(({ body }) => body.kind === 'one-answer')
        if (fixed?.body.kind === 'one-answer')
          for (const choice of fixed.body.choices) choice.right = !choice.right
      },
      evidence: '“When does a neap tide come?”',
    },
    {
      title: 'taken out',
      change: ({ item }) => void item('quiz', 2).questions?.shift(),
      evidence: 'no such question',
    },
  ],
}
