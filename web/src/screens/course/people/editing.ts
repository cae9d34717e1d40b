import {
  everyModule,
  type CheckResult,
  type Course,
  type CoursePerson,
  type Duty,
  type Facts,
} from '@wickerframe/core'
import type { CoursePeople } from '@wickerframe/contract'

/** Gives somebody a duty; whoever owned the course before teaches it from then on. */
export const withDuty = (was: CoursePeople, email: string, duty: Duty): CoursePeople => ({
  ...was,
  people: was.people.map((person) =>
    person.email === email
      ? { ...person, duty }
      : duty === 'owner' && person.duty === 'owner'
        ? { ...person, duty: 'instructor' }
        : person,
  ),
})

/** Takes somebody out, with the modules that were theirs. */
export const without = ({ people, moduleOwners }: CoursePeople, email: string): CoursePeople => ({
  people: people.filter((person) => person.email !== email),
  moduleOwners: Object.fromEntries(
    Object.entries(moduleOwners).filter(([, owner]) => owner !== email),
  ),
})

/** Adds somebody; whoever comes first into a course without an owner owns it. */
export const withPerson = (was: CoursePeople, person: CoursePerson): CoursePeople => {
  const email = person.email.toLowerCase()
  if (was.people.some((other) => other.email === email)) return was
  const owned = was.people.some(({ duty }) => duty === 'owner')
  const duty = person.duty !== 'assistant' && !owned ? 'owner' : person.duty
  return { ...was, people: [...was.people, { ...person, email, duty }] }
}

/** Has somebody act for a module; nobody: the owner of the course does. */
export const withModuleOwner = (
  was: CoursePeople,
  module: string,
  email: string | null,
): CoursePeople => {
  const others = Object.entries(was.moduleOwners).filter(([key]) => key !== module)
  return {
    ...was,
    moduleOwners: Object.fromEntries(email === null ? others : [...others, [module, email]]),
  }
}

/** A module of a course, by what its owner is kept under. */
export interface OwnedModule {
  key: string
  name: string
  depth: number
}

/**
 * The modules of a course in their order; those of the template by their part instance, so that the owner stays whatever the
 * module is called. What has an owner and is not there now comes last, by its key.
 */
export const modulesToOwn = (
  course: Course | null,
  result: CheckResult | null,
  moduleOwners: Facts['moduleOwners'],
): OwnedModule[] => {
  const instances = new Map(result?.pairs.map((pair) => [pair.found, pair.expected]))
  const there = (course?.modules ?? []).flatMap((top) =>
    everyModule([top]).map((module) => ({
      key: instances.get(module.id) ?? module.id,
      name: module.name,
      depth: module === top ? 0 : 1,
    })),
  )
  return [
    ...there,
    ...Object.keys(moduleOwners)
      .filter((key) => !there.some((module) => module.key === key))
      .map((key) => ({ key, name: `${key} (not in the course now)`, depth: 0 })),
  ]
}
