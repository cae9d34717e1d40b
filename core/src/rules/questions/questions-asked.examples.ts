import type { RuleExamples } from '../rule.ts'

export const examples: RuleExamples = {
  passes: [
    { title: 'two of their own, as asked', change: () => {} },
    {
      title: 'a proposal worded otherwise counts as one of theirs',
      change: ({ item }) => {
        const questions = item('quiz', 2).questions
        const proposed = questions?.find(({ body }) => body.kind === 'short-answer')
        if (proposed) proposed.body.text = '<p>What do our charts measure depths from?</p>'
        questions?.pop()
      },
    },
  ],
  fails: [
    {
      title: 'one was taken out',
      change: ({ item }) => void item('quiz', 2).questions?.pop(),
      evidence: '1 of 2',
    },
    {
      title: 'only what came with the template',
      change: ({ item }) => void item('quiz', 2).questions?.splice(2),
      evidence: '0 of 2',
    },
  ],
}
