import { z } from 'zod'
import { CoursePerson } from '@wickerframe/core'
import { Done, type Routes } from './asked.ts'

/** Who is in a course, and who acts for which of its modules. */
export const CoursePeople = z.strictObject({
  people: z
    .array(CoursePerson)
    .max(60)
    .refine((people) => people.filter(({ duty }) => duty === 'owner').length <= 1, 'one owner')
    .refine(
      (people) => new Set(people.map(({ email }) => email.toLowerCase())).size === people.length,
      'everybody once',
    )
    .describe('Everybody of it, in order'),
  moduleOwners: z
    .record(z.string().min(1).max(200), z.string().max(200))
    .refine((owners) => Object.keys(owners).length <= 300, 'at most 300 modules')
    .describe(
      'E-mail of one of them by the part instance of a module, or by its platform id; the owner acts for the others',
    ),
})
export type CoursePeople = z.output<typeof CoursePeople>

export const coursePeopleRoutes = {
  decideCoursePeople: {
    method: 'post',
    path: '/api/courses/:course/people',
    summary: 'Decide who teaches a course, who helps, who owns it and its modules',
    may: 'decide for course',
    body: z.strictObject({
      ...CoursePeople.shape,
      /** How they were when it was decided. */
      was: CoursePeople,
    }),
    answer: Done,
  },
} as const satisfies Routes
