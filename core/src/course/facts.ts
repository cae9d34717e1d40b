import { Line } from '../document/index.ts'
import { z } from 'zod'
import { Term, Unit, weekdays } from '../calendar/index.ts'
import { Key } from '../template/index.ts'
import { ReaderName } from './readerName.ts'

export const modalities = ['on-campus', 'online', 'hybrid'] as const

export const Person = z.strictObject({ name: Line(200), email: z.email().max(200) })
export type Person = z.output<typeof Person>

/** What is known of a course besides its content, with its term inside. */
export const Facts = z
  .strictObject({
    schema: z.literal('wickerframe.facts/1'),
    code: Line(60).describe('Course code, e.g. NAV 110'),
    title: Line(300),
    department: Line(40),
    modality: z.enum(modalities),
    weeks: z.number().int().min(1).max(60).describe('How many instructional weeks'),
    term: Term,
    nextTerm: Term.optional().describe('The term after it, for a course that spans two'),
    session: z
      .string()
      .max(60)
      .optional()
      .describe("Code of the term's session the course runs in"),
    meetingDays: z
      .array(z.enum(weekdays))
      .max(7)
      .optional()
      .describe('Weekdays on which the class meets; Monday to Friday without it'),
    classSections: z.array(Line(40)).default([]),
    classSectionKind: z.enum(['own', 'shared']).default('own'),
    instructors: z.array(Person).default([]).describe('Who teaches it, one or several'),
    assistants: z.array(Person).default([]).describe('Who helps them'),
    owner: z
      .string()
      .max(200)
      .optional()
      .describe('E-mail of the person who must act; the first instructor without it'),
    moduleOwners: z
      .record(z.string().max(200), z.string().max(200))
      .default({})
      .describe(
        'E-mail of the person who must act for a module, by its part instance, or by its platform id where it is no part of the template',
      ),
    topics: z
      .record(z.string().regex(/^\d+$/, 'a week number'), Line(300, 0))
      .default({})
      .describe('Topic of each week, by its number'),
    room: Line(100).optional().describe('Where the class meets'),
    answers: z
      .record(Key, z.string().max(20_000))
      .default({})
      .describe('Answers to fill-ins whose scope is the course, by block key'),
    units: z.array(Unit).optional(),
    readerName: ReaderName.optional().describe(
      'What the platform shows as the first name of whoever reads a page; without it the words stand that a template has instead',
    ),
  })
  .superRefine((facts, context) => {
    if (
      facts.session !== undefined &&
      !facts.term.sessions.some((session) => session.code === facts.session)
    )
      context.addIssue({
        code: 'custom',
        path: ['session'],
        message: `the code of a session of the term: ${facts.term.sessions.map((session) => session.code).join(', ') || 'it has none'}`,
      })
  })
export type Facts = z.output<typeof Facts>

/** E-mail of the person who must act for a course; null: nobody teaches it. */
export const ownerOf = ({
  owner,
  instructors,
}: Pick<Facts, 'owner' | 'instructors'>): string | null => owner ?? instructors[0]?.email ?? null
