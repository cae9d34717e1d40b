import { describe, expect, it } from 'vitest'
import type { CoursePeople } from '@wickerframe/contract'
import { checkedExample } from '../../../testing/checked.testing.ts'
import { modulesToOwn, withDuty, without, withModuleOwner, withPerson } from './editing.ts'

const [ana, bo, cy] = ['ana@x.example', 'bo@x.example', 'cy@x.example'] as const
const people: CoursePeople = {
  people: [
    { name: 'Ana', email: ana, duty: 'owner' },
    { name: 'Bo', email: bo, duty: 'instructor' },
    { name: 'Cy', email: cy, duty: 'assistant' },
  ],
  moduleOwners: { 'week@3': cy, 'week@4': bo },
}
const duties = ({ people }: CoursePeople) => people.map(({ email, duty }) => [email, duty])

describe('deciding on the people of a course', () => {
  it('a course has one owner: who owned it teaches it from then on', () => {
    expect(duties(withDuty(people, bo, 'owner'))).toEqual([
      [ana, 'instructor'],
      [bo, 'owner'],
      [cy, 'assistant'],
    ])
    expect(duties(withDuty(people, cy, 'instructor'))[2]).toEqual([cy, 'instructor'])
  })
  it('who is taken out leaves their modules to the owner of the course', () => {
    expect(without(people, cy)).toEqual({
      people: people.people.slice(0, 2),
      moduleOwners: { 'week@4': bo },
    })
  })
  it('nobody is added twice, whatever the letters of their address, and the first who teaches owns it', () => {
    expect(withPerson(people, { name: 'Bo', email: 'Bo@X.example', duty: 'assistant' })).toBe(
      people,
    )
    const none = { people: [], moduleOwners: {} }
    expect(
      duties(withPerson(none, { name: 'Di', email: 'Di@x.example', duty: 'instructor' })),
    ).toEqual([['di@x.example', 'owner']])
    expect(
      duties(withPerson(none, { name: 'Di', email: 'di@x.example', duty: 'assistant' })),
    ).toEqual([['di@x.example', 'assistant']])
  })
  it('a module is given to somebody, and back to the owner of the course', () => {
    expect(withModuleOwner(people, 'week@5', bo).moduleOwners['week@5']).toBe(bo)
    expect(withModuleOwner(people, 'week@3', null).moduleOwners).toEqual({ 'week@4': bo })
  })
})

describe('modules that may have an owner', () => {
  it('are those of the course in their order, known by their part, and those that are gone but owned', () => {
    const { course, result } = checkedExample(({ module }) => {
      module('week', 3).name = 'The compass'
    })
    const listed = modulesToOwn(course, result, { 'week@gone': ana })
    const third = listed.find(({ name }) => name === 'The compass')
    expect(third?.key).toMatch(/^week@/)
    expect(listed.map(({ name }) => name)).toEqual([
      ...course.modules.map(({ name }) => name),
      'week@gone (not in the course now)',
    ])
  })
  it('of a course that nobody read are none', () => {
    expect(modulesToOwn(null, null, {})).toEqual([])
  })
})
