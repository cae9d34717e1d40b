import { z } from 'zod'
import { ownerOf, Person, type Facts } from './facts.ts'

/** What somebody is in a course. One of those who teach it owns it: the person who must act. */
export const duties = ['owner', 'instructor', 'assistant'] as const
export type Duty = (typeof duties)[number]

export const CoursePerson = Person.extend({ duty: z.enum(duties) })
export type CoursePerson = z.output<typeof CoursePerson>

/** Everybody of a course with their duty: who teaches it, in order, then who helps them. */
export const peopleOf = (
  facts: Pick<Facts, 'instructors' | 'assistants' | 'owner'>,
): CoursePerson[] => [
  ...facts.instructors.map((person) => ({
    ...person,
    duty: person.email === ownerOf(facts) ? ('owner' as const) : ('instructor' as const),
  })),
  ...facts.assistants.map((person) => ({ ...person, duty: 'assistant' as const })),
]

/** People of a course as its facts tell them. */
export const peopleAsFacts = (
  people: readonly CoursePerson[],
): Pick<Facts, 'instructors' | 'assistants' | 'owner'> => {
  const named = (those: readonly CoursePerson[]) =>
    those.map(({ name, email }) => ({ name, email }))
  const owner = people.find(({ duty }) => duty === 'owner')
  return {
    instructors: named(people.filter(({ duty }) => duty !== 'assistant')),
    assistants: named(people.filter(({ duty }) => duty === 'assistant')),
    ...(owner ? { owner: owner.email } : {}),
  }
}
