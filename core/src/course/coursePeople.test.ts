import { describe, expect, it } from 'vitest'
import { ownerOf, peopleAsFacts, peopleOf, type CoursePerson } from './index.ts'

const person = (name: string, duty: CoursePerson['duty']): CoursePerson => ({
  name,
  email: `${name}@kestrelsound.example`,
  duty,
})

describe('people of a course', () => {
  it.each([
    ['nobody', []],
    ['one who owns it', [person('ana', 'owner')]],
    ['an owner who is not the first', [person('ana', 'instructor'), person('bo', 'owner')]],
    [
      'those who help',
      [person('ana', 'owner'), person('bo', 'instructor'), person('cy', 'assistant')],
    ],
    ['only one who helps', [person('cy', 'assistant')]],
  ])('come out of its facts as they went in: %s', (_, people) => {
    expect(peopleOf(peopleAsFacts(people))).toEqual(people)
  })
  it('are owned by the first who teaches where nobody is said to own it, and never by who helps', () => {
    const facts = peopleAsFacts([person('cy', 'assistant'), person('ana', 'instructor')])
    expect(ownerOf(facts)).toBe('ana@kestrelsound.example')
    expect(peopleOf(facts).map(({ duty }) => duty)).toEqual(['owner', 'assistant'])
    expect(ownerOf(peopleAsFacts([person('cy', 'assistant')]))).toBe(null)
  })
})
