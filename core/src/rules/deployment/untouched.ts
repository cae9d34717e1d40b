import { z } from 'zod'
import { addDays } from '../../calendar/index.ts'
import { aboutCourse, defineRule, type Verdict } from '../rule.ts'

export const untouched = defineRule({
  id: 'untouched',
  group: 'deployment',
  title: 'The instructor has begun',
  why: 'A course in which nothing was filled in opens with every prompt still standing. A plain comparison would call it perfect.',
  strength: 'must',
  parameters: z.strictObject({
    days: z
      .number()
      .int()
      .min(1)
      .max(200)
      .default(14)
      .describe('Days after deployment by which something is filled in'),
  }),
  mender: 'instructor',
  effortMinutes: 120,
  messages: { untouched: 'Nothing has been filled in since the course was set up on {since}.' },
  *check(context, { days }): Generator<Verdict> {
    const { history } = context
    const answers = context.pageParts().flatMap((part) => {
      const there = context.itemFor(part)
      return there
        ? (context.readingsOf(there) ?? []).filter(
            (reading) =>
              reading.block.definition.kind === 'fill-in' && reading.block.answer === null,
          )
        : []
    })
    if (!history?.deployedOn || history.preparing !== null || answers.length === 0)
      yield { subject: aboutCourse, outcome: 'inapplicable' }
    else if (
      answers.some(
        (reading) => reading.state === 'filled' || reading.state === 'prompt-beside-answer',
      )
    )
      yield { subject: aboutCourse, outcome: 'passed' }
    else if (!context.reached(addDays(history.deployedOn, days)))
      yield {
        subject: aboutCourse,
        outcome: 'not-due-yet',
        dueOn: addDays(history.deployedOn, days),
      }
    else
      yield {
        subject: aboutCourse,
        outcome: 'failed',
        message: 'untouched',
        values: { since: history.deployedOn },
        evidence: [{ kind: 'count', text: `0 of ${answers.length} filled in` }],
        expected: 'something filled in',
      }
  },
  examples: {
    passes: [
      { title: 'filled in', change: () => {} },
      {
        title: 'the instructor prepares it in a course of their own',
        change: ({ course, history }) => {
          history.preparing = 'NAV 110, in preparation'
          for (const module of course.modules)
            for (const item of module.items)
              item.html = (item.html ?? '')
                .replace(
                  'I have sailed these waters for thirty years.',
                  'Tell students who you are.',
                )
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
          for (const item of [...course.modules.flatMap((module) => module.items), ...course.stray])
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
          for (const item of [...course.modules.flatMap((module) => module.items), ...course.stray])
            item.html = (item.html ?? '')
              .replace(/ data-wf-[a-z]+="[^"]*"/g, '')
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
  },
})
