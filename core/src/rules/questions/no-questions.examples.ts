import { isModule } from '../../template/index.ts'
import type { RuleExamples } from '../rule.ts'

export const examples: RuleExamples = {
  passes: [
    { title: 'questions as deployed', change: () => {} },
    {
      title: 'a quiz that week 3 does not need yet',
      asOf: '2026-08-25',
      change: ({ item }) => void (item('quiz', 4).questions = []),
    },
    {
      title: 'a quiz for which an assignment was put in',
      change: ({ item }) => {
        const quiz = item('quiz', 2)
        quiz.kind = 'assignment'
        delete quiz.questions
      },
    },
  ],
  fails: [
    {
      title: 'all of them were taken out',
      change: ({ item }) => void (item('quiz', 2).questions = []),
      evidence: 'no questions',
    },
    {
      title: 'a quiz with a time limit for which the template has none',
      change: ({ template, item }) => {
        for (const part of template.parts)
          if (isModule(part))
            for (const quiz of part.items)
              if (!isModule(quiz) && quiz.key === 'quiz') delete quiz.questions
        item('quiz', 3).questions = []
      },
      evidence: 'no questions',
    },
  ],
}
