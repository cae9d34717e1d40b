import type { waiverRoutes } from '@wickerframe/contract'
import { ruleById, settledByWord } from '@wickerframe/core'
import { inTransaction, type Database } from '@wickerframe/storage'
import { mustLookAfter } from '../courses/departments.ts'
import { actingTo, mayToCourse } from '../courses/visible.ts'
import type { HandlersOf, Situation } from '../http/handler.ts'
import { recordAudit } from '../audit/audit.ts'
import { tellOfCourse } from '../messages/messages.ts'
import { addAttestation, takeAttestationBack } from './attestations.ts'
import { leaveOutThisWeek, takeInThisWeek } from './notThisWeek.ts'
import { waiverQueue } from './waiverQueue.ts'
import { addWaiver, decideWaiver, findWaiver, type NewWaiver } from './waivers.ts'
import {
  addWideWaiver,
  coursesReachedBy,
  findWideWaiver,
  withdrawWideWaiver,
} from './wideWaivers.ts'
import { createRunIn } from '../runs/newRun.ts'
import { findTemplateId } from '../templates/templates.ts'
import { findTerm } from '../terms/terms.ts'
import { findCheck } from '../checks/checks.ts'
import { HttpProblem, notFound } from '../http/problem.ts'
import { courseIn, coursesOf } from '../courses/routes.ts'
import { andCheckAgain, toldAtAll } from '../checks/toldAt.ts'

/** One waiver for each part or rule it excuses, where it excuses those; one for each place otherwise. */
const onceEach = (waivers: readonly NewWaiver[]): NewWaiver[] => [
  ...new Map(
    waivers
      .toReversed()
      .map((waiver) => [JSON.stringify([waiver.rule, waiver.part, waiver.fingerprint]), waiver]),
  ).values(),
]

/** @throws HttpProblem 400 where it would begin on a day that is gone, or end before it begins */
const mustLast = (from: string, until: string | null, today: string): void => {
  if (from < today)
    throw new HttpProblem(400, 'unusable-input', `at /from: found ${from}; expected today or later`)
  if (until !== null && until < from)
    throw new HttpProblem(
      400,
      'unusable-input',
      `at /until: found ${until}; expected ${from === today ? 'today' : from} or later`,
    )
}

/** Has courses checked again from what is stored, for what a waiver for many of them excuses. Until then they are shown as they were. */
const checkReached = async (
  database: Database,
  courses: readonly number[],
  { person, today }: Situation,
): Promise<{ courses: number; run: number | null }> => {
  const run =
    courses.length === 0
      ? null
      : await createRunIn(database, {
          kind: 'recheck',
          title: `${courses.length} ${courses.length === 1 ? 'course' : 'courses'} checked again after a waiver`,
          by: person.email,
          asOf: today,
          templateId: null,
          version: null,
          tasks: courses.map((courseId) => ({ courseId })),
        })
  return { courses: courses.length, run }
}

export const waiverHandlers: HandlersOf<typeof waiverRoutes> = {
  listWaivers: async ({ pool, person, today }) => waiverQueue(pool, person, today),
  giveWideWaiver: async (handling) => {
    const { pool, person, today, body } = handling
    const { from = today, until, rule, part, department, template, term, courses } = body
    mustLast(from, until, today)
    if (rule === null && part === null)
      throw new HttpProblem(
        400,
        'unusable-input',
        'at /rule: found null; expected a rule, or a part',
      )
    if (rule !== null && !ruleById(rule))
      throw new HttpProblem(
        400,
        'unusable-input',
        `at /rule: found ${rule}; expected a rule of Wickerframe`,
      )
    if (term !== null && !(await findTerm(pool, term))) throw notFound('term')
    const templateId = template === null ? null : await findTemplateId(pool, template)
    if (template !== null && templateId === null) throw notFound('template')
    const listed = courses === null ? null : await coursesOf(handling, courses)
    mustLookAfter(
      actingTo(person, 'decide waivers'),
      listed ? listed.map(({ summary }) => summary.department) : [department],
    )
    return inTransaction(pool, async (database) => {
      const id = await addWideWaiver(
        database,
        {
          rule,
          part,
          department,
          templateId,
          term,
          from,
          until,
          carried: body.carried,
          reason: body.reason,
          courses: listed && listed.map(({ summary }) => summary.id),
        },
        person.email,
      )
      await recordAudit(database, {
        who: person.email,
        what: 'waiver given',
        subject: 'many courses',
        to: { waiver: id, ...body },
      })
      return checkReached(database, await coursesReachedBy(database, id), handling)
    })
  },
  withdrawWideWaiver: async (handling) => {
    const { pool, person, at } = handling
    const found = await findWideWaiver(pool, at.waiver)
    if (!found) throw notFound('waiver for many courses')
    mustLookAfter(actingTo(person, 'decide waivers'), found.departments)
    return inTransaction(pool, async (database) => {
      const reached = await coursesReachedBy(database, at.waiver)
      if (!(await withdrawWideWaiver(database, at.waiver, person.email)))
        throw new HttpProblem(409, 'decided', `the waiver is ${found.state} already`)
      await recordAudit(database, {
        who: person.email,
        what: 'waiver withdrawn',
        subject: 'many courses',
        to: { waiver: at.waiver },
      })
      return checkReached(database, reached, handling)
    })
  },
  askWaiver: async (handling) => {
    const { pool, person, today, body } = handling
    const stored = await courseIn(handling)
    const { id } = stored.summary
    const { fingerprints, scope, from = today, until, carried, reason } = body
    mustLast(from, until, today)
    const told = await toldAtAll(handling, id, new Set(fingerprints))
    if (told.some(({ outcome }) => outcome.outcome !== 'failed'))
      throw new HttpProblem(
        409,
        'nothing-to-waive',
        'one of the requirements is not open, so there is nothing to waive; check again',
      )
    const approved = await mayToCourse(pool, person, 'decide waivers', id)
    const isOfPlace = scope === 'place' || scope === 'evidence'
    const waivers = told.map(({ outcome, place }): NewWaiver => ({
      scope,
      rule: outcome.rule,
      part: scope === 'rule' ? null : outcome.place.part,
      week: isOfPlace ? outcome.place.week : null,
      fingerprint: isOfPlace ? outcome.fingerprint : null,
      evidence: isOfPlace ? (place?.digest ?? null) : null,
      from,
      until,
      carried,
      reason,
    }))
    if (scope === 'part' && waivers.some(({ part }) => part === null))
      throw new HttpProblem(
        400,
        'no-part',
        'one of the findings is about no part of the template; waive that place, or its rule',
      )
    return andCheckAgain(handling, stored, async (database) => {
      for (const waiver of onceEach(waivers)) {
        const given = await addWaiver(database, id, waiver, person.email, approved)
        await recordAudit(database, {
          who: person.email,
          what: approved ? 'waiver given' : 'waiver asked for',
          subject: `course ${id}`,
          to: { waiver: given, ...waiver },
        })
      }
    })
  },
  decideWaiver: async (handling) => {
    const { person, pool, at, body } = handling
    const stored = await courseIn(handling)
    const { id } = stored.summary
    const waiverId = at.waiver
    const { decision, answer } = body
    const waiver = await findWaiver(pool, id, waiverId)
    if (!waiver) throw notFound('waiver')
    const mayDecide = await mayToCourse(pool, person, 'decide waivers', id)
    if (decision !== 'withdraw' && !mayDecide)
      throw new HttpProblem(403, 'role', 'only a designer or an administrator decides on a waiver')
    if (decision === 'withdraw' && !mayDecide && waiver.askedBy !== person.email)
      throw new HttpProblem(
        403,
        'role',
        'only whoever asked for a waiver, a designer or an administrator withdraws it',
      )
    const [from, to] =
      decision === 'withdraw'
        ? ([['asked', 'approved'], 'withdrawn'] as const)
        : ([['asked'], decision === 'approve' ? 'approved' : 'refused'] as const)
    return andCheckAgain(handling, stored, async (database) => {
      if (!(await decideWaiver(database, id, waiverId, from, to, person.email, answer)))
        throw new HttpProblem(409, 'decided', `the waiver is ${waiver.state} already`)
      if (waiver.askedBy !== person.email)
        await tellOfCourse(database, waiver.askedBy, id, {
          subject: `Your waiver in ${stored.summary.code} ${stored.summary.title} is ${to === 'approved' ? 'given' : to}`,
          body: `${person.name}${answer === '' ? '' : `: ${answer}`}. You asked: ${waiver.reason}`,
        })
      await recordAudit(database, {
        who: person.email,
        what: `waiver ${to}`,
        subject: `course ${id}`,
        to: { waiver: waiverId, answer },
      })
    })
  },
  attest: async (handling) => {
    const { person, today, body } = handling
    const stored = await courseIn(handling)
    const { id } = stored.summary
    const { words, takeBack } = body
    const fingerprints = new Set(body.fingerprints)
    if (takeBack)
      return andCheckAgain(handling, stored, async (database) => {
        for (const fingerprint of fingerprints) {
          if (!(await takeAttestationBack(database, id, fingerprint))) throw notFound('attestation')
          await recordAudit(database, {
            who: person.email,
            what: 'attestation taken back',
            subject: `course ${id}`,
            to: { fingerprint, words },
          })
        }
      })
    const told = await toldAtAll(handling, id, fingerprints)
    if (!told.every(({ outcome }) => settledByWord(outcome)))
      throw new HttpProblem(
        409,
        'seen',
        'what the snapshot shows is not a matter of somebody’s word; ask for a waiver instead',
      )
    return andCheckAgain(handling, stored, async (database) => {
      for (const { outcome } of told) {
        const { rule, fingerprint } = outcome
        await addAttestation(database, id, {
          rule,
          fingerprint,
          by: person.email,
          on: today,
          until: stored.facts.term.lastDay < today ? null : stored.facts.term.lastDay,
          words,
        })
        await recordAudit(database, {
          who: person.email,
          what: 'attested',
          subject: `course ${id}`,
          to: { rule, fingerprint, words },
        })
      }
    })
  },
  notThisWeek: async (handling) => {
    const { person, pool, today, query, body } = handling
    const stored = await courseIn(handling)
    const { id } = stored.summary
    const { instance, leftOut } = body
    const result = await findCheck(pool, id, query.asOf ?? today)
    if (leftOut && !result?.missing.includes(instance))
      throw new HttpProblem(409, 'not-missing', 'that part is in the course, so it is not left out')
    return andCheckAgain(handling, stored, async (database) => {
      if (leftOut) await leaveOutThisWeek(database, id, instance, person.email)
      else await takeInThisWeek(database, id, instance)
      await recordAudit(database, {
        who: person.email,
        what: leftOut ? 'not this week' : 'wanted again',
        subject: `course ${id}`,
        to: { instance },
      })
    })
  },
}
