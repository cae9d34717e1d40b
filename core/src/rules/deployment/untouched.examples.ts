import { itemsIn } from '../../course/index.ts'
import type { RuleExamples } from '../rule.ts'

export const examples: RuleExamples = {
  passes: [
    { title: 'filled in', change: () => {} },
    {
      title: 'the instructor prepares it in a course of their own',
      change: ({ course, history }) => {
        history.preparing = 'NAV 110, in preparation'
        for (const module of course.modules)
          for (const item of itemsIn(module))
            item.html = (item.html ?? '')
              .replace('I have sailed these waters for thirty years.', 'Tell students who you are.')
              .replace(
                'We learn what the chart leaves out.',
                'In two or three sentences, say what this week is about.',
              )
      },
    },
  ],
  fails: [
    {
      title: 'four weeks on, every prompt still stands',
      change: ({ course }) => {
        for (const item of [
          ...course.modules.flatMap((module) => itemsIn(module)),
          ...course.stray,
        ])
          item.html = (item.html ?? '')
            .replace('I have sailed these waters for thirty years.', 'Tell students who you are.')
            .replace(
              'We learn what the chart leaves out.',
              'In two or three sentences, say what this week is about.',
            )
            .replace('Tuesdays 10 to 11, room 4', 'When can students see you?')
            .replace(/<a href="[^"]*files[^"]*">[^<]*<\/a>/, 'Attach the syllabus as a file.')
      },
      evidence: '0 of 10 filled in',
    },
    {
      title: 'so it does where markers were stripped',
      change: ({ course }) => {
        for (const item of [
          ...course.modules.flatMap((module) => itemsIn(module)),
          ...course.stray,
        ])
          item.html = (item.html ?? '')
            .replace(/ data-wicker-[a-z]+="[^"]*"/g, '')
            .replace('I have sailed these waters for thirty years.', 'Tell students who you are.')
            .replace(
              'We learn what the chart leaves out.',
              'In two or three sentences, say what this week is about.',
            )
            .replace('Tuesdays 10 to 11, room 4', 'When can students see you?')
            .replace(/<a href="[^"]*files[^"]*">[^<]*<\/a>/, 'Attach the syllabus as a file.')
      },
      evidence: '0 of 10 filled in',
    },
  ],
}
