import { isDeepStrictEqual } from 'node:util'
import type { CoursePeople, coursePeopleRoutes } from '@wickerframe/contract'
import { ownerOf, peopleOf, type Duty, type Facts } from '@wickerframe/core'
import { inTransaction } from '@wickerframe/storage'
import { recordAudit } from '../audit/audit.ts'
import type { HandlersOf } from '../http/handler.ts'
import { HttpProblem } from '../http/problem.ts'
import { tellOfCourse } from '../messages/messages.ts'
import { decideField } from './courseDecisions.ts'
import { replaceModuleOwners, replacePeople } from './coursePeople.ts'
import { findCourse, lockCourse } from './courses.ts'
import { courseIn } from './routes.ts'
import { mayToCourse } from './visible.ts'

export const coursePeopleHandlers: HandlersOf<typeof coursePeopleRoutes> = {
  /** Designers decide on everything; the owner of a course on all but who teaches it. What is decided outranks the roster. */
  decideCoursePeople: async (handling) => {
    const { pool, person, body, today } = handling
    const { id } = (await courseIn(handling)).summary
    const wanted = inOrder(body)
    const stranger = Object.values(wanted.moduleOwners).find(
      (email) => !wanted.people.some((one) => one.email === email),
    )
    if (stranger !== undefined)
      throw new HttpProblem(
        400,
        'unusable-input',
        `at /moduleOwners: found ${stranger}; expected the e-mail of somebody of the course`,
      )
    const keeps = await mayToCourse(pool, person, 'keep courses', id)
    await inTransaction(pool, async (database) => {
      await lockCourse(database, id)
      const stored = await findCourse(database, id, 'system', today)
      if (!stored) return
      const now = peopleNow(stored.facts)
      if (!isDeepStrictEqual(now, inOrder(body.was)))
        throw new HttpProblem(
          409,
          'changed',
          'somebody else changed the people of this course meanwhile; look at them again, then decide',
        )
      const teachesAlike = isDeepStrictEqual(teaching(wanted), teaching(now))
      if (!keeps) {
        if (ownerOf(stored.facts) !== person.email)
          throw new HttpProblem(
            403,
            'role',
            'the owner of a course and designers decide on its people',
          )
        if (!teachesAlike)
          throw new HttpProblem(
            403,
            'role',
            'who teaches a course is decided by designers; its owner decides who helps, who owns it next and who acts for which module',
          )
      }
      await replacePeople(database, id, wanted.people)
      await replaceModuleOwners(database, id, wanted.moduleOwners)
      if (!teachesAlike) await decideField(database, id, 'instructors', person.email)
      if (!isDeepStrictEqual(helping(wanted), helping(now)))
        await decideField(database, id, 'duties', person.email)
      await recordAudit(database, {
        who: person.email,
        what: 'people of the course decided',
        subject: `course ${id}`,
        from: now,
        to: wanted,
      })
      const { code, title } = stored.summary
      for (const one of wanted.people) {
        const is = standingOf(wanted, one.email)
        if (one.email !== person.email && is !== standingOf(now, one.email))
          await tellOfCourse(database, one.email, id, {
            subject: `${code} ${title}: ${dutyInWords[one.duty]}`,
            body: is,
          })
      }
    })
    return {}
  },
}

const dutyInWords: Readonly<Record<Duty, string>> = {
  owner: 'you own it',
  instructor: 'you teach it',
  assistant: 'you help in it',
}

/** What somebody is in a course, in a sentence; empty: nothing. */
const standingOf = ({ people, moduleOwners }: CoursePeople, email: string): string => {
  const duty = people.find((person) => person.email === email)?.duty
  if (duty === undefined) return ''
  const modules = Object.values(moduleOwners).filter((owner) => owner === email).length
  const acts =
    duty === 'owner'
      ? 'What is to be mended in it is your move, but for modules that have an owner of their own.'
      : modules === 0
        ? 'What is to be mended in it is its owner’s move.'
        : `What is to be mended in ${modules === 1 ? 'one of its modules' : `${modules} of its modules`} is your move.`
  return acts
}

const peopleNow = (facts: Facts): CoursePeople =>
  inOrder({ people: peopleOf(facts), moduleOwners: facts.moduleOwners })

/** Who teaches before who helps, addresses in lower case, so that what is alike compares alike. */
const inOrder = ({ people, moduleOwners }: CoursePeople): CoursePeople => {
  const all = people.map(({ name, email, duty }) => ({ name, email: email.toLowerCase(), duty }))
  const teach = all.filter(({ duty }) => duty !== 'assistant')
  return {
    people: [
      ...teach.map((person, i) =>
        // Where nobody is said to own it, the first of them does.
        i === 0 && !teach.some(({ duty }) => duty === 'owner')
          ? { ...person, duty: 'owner' as const }
          : person,
      ),
      ...all.filter(({ duty }) => duty === 'assistant'),
    ],
    moduleOwners: Object.fromEntries(
      Object.entries(moduleOwners).map(([module, email]) => [module, email.toLowerCase()]),
    ),
  }
}

const teaching = ({ people }: CoursePeople) =>
  people.filter(({ duty }) => duty !== 'assistant').map(({ name, email }) => ({ name, email }))
const helping = ({ people }: CoursePeople) => ({
  owner: people.find(({ duty }) => duty === 'owner')?.email,
  assistants: people.filter(({ duty }) => duty === 'assistant'),
})
