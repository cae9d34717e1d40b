import { isModule } from '../../template/index.ts'
import type { RuleExamples } from '../rule.ts'

export const examples: RuleExamples = {
  passes: [
    { title: 'a file is linked', change: () => {} },
    {
      title: 'the page itself is the syllabus',
      change: ({ item }) =>
        void (item('syllabus').html =
          `<p>${'The course runs for eight weeks and ends at sea. '.repeat(10)}</p>`),
    },
    {
      title: 'a quiz about the syllabus, which is none itself',
      change: ({ template }) => {
        for (const part of template.parts)
          if (isModule(part))
            for (const quiz of part.items)
              if (quiz.key === 'quiz') quiz.name = 'Syllabus quiz {week}'
      },
    },
  ],
  fails: [
    {
      title: 'a page with one line',
      change: ({ item }) => void (item('syllabus').html = '<p>Will be handed out in class.</p>'),
      evidence: '6 words, no file',
    },
    {
      title: 'an empty page',
      change: ({ item }) => void (item('syllabus').html = ''),
      evidence: '0 words, no file',
    },
  ],
}
