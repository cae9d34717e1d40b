import { may, type careRoutes } from '@wickerframe/contract'
import type { HandlersOf } from '../handler.ts'
import type { Finding, FindingPlace, Outcome } from '@wickerframe/core'
import { inTransaction, type Database } from '@wickerframe/storage'
import { judgeAgain } from '../../jobs/judgeCourse.ts'
import { recordAudit } from '../../repositories/audit.ts'
import {
  addAttestation,
  addWaiver,
  answerFollowUp,
  closeFollowUp,
  decideWaiver,
  findWaiver,
  forgetJoin,
  markJudgedAnew,
  promiseFollowUp,
  putJoin,
  leaveOutThisWeek,
  takeInThisWeek,
  raiseFollowUp,
  takeAttestationBack,
} from '../../repositories/care.ts'
import { findCheck } from '../../repositories/checks.ts'
import type { StoredCourse } from '../../repositories/courses.ts'
import { HttpProblem, notFound } from '../problem.ts'
import { courseIn, type AboutCourse } from './courses.ts'

interface Told {
  finding: Finding | null
  place: FindingPlace | null
  outcome: Outcome
}

/** What the latest check told at a fingerprint. @throws HttpProblem 404 when it tells nothing there */
const toldAt = async (
  { pool, today, query }: AboutCourse,
  courseId: number,
  fingerprint: string,
): Promise<Told> => {
  const result = await findCheck(pool, courseId, query.asOf ?? today)
  const outcome = result?.outcomes.find((one) => one.fingerprint === fingerprint)
  if (!result || !outcome)
    throw notFound('finding in the latest check of the course; check it again')
  const finding =
    result.findings.find((one) => one.places.some((place) => place.fingerprint === fingerprint)) ??
    null
  return {
    outcome,
    finding,
    place: finding?.places.find((place) => place.fingerprint === fingerprint) ?? null,
  }
}

/** Keeps a change of what a course is judged by, and judges it again at once. */
const andJudgeAgain = async (
  handling: AboutCourse,
  stored: StoredCourse,
  keep: (database: Database) => Promise<void>,
): Promise<{}> => {
  const { pool, today, query } = handling
  await inTransaction(pool, async (database) => {
    await keep(database)
    await markJudgedAnew(database, stored.summary.id)
  })
  await judgeAgain(pool, stored, today, today)
  const asOf = query.asOf ?? today
  if (asOf !== today) await judgeAgain(pool, stored, asOf, today)
  return {}
}

export const careHandlers: HandlersOf<typeof careRoutes> = {
  joinPair: async (handling) => {
    const { person, pool, today, query, body } = handling
    const stored = await courseIn(handling)
    const { id } = stored.summary
    const { what, expected, found } = body
    const result = await findCheck(pool, id, query.asOf ?? today)
    if (!result)
      throw new HttpProblem(
        409,
        'not-checked',
        'the course has not been checked yet, so there is nothing to join',
      )
    const instances = new Set([...result.pairs.map((pair) => pair.expected), ...result.missing])
    const ids = new Set([...result.pairs.map((pair) => pair.found), ...result.extra])
    if (what !== 'forget' && !instances.has(expected))
      throw new HttpProblem(
        400,
        'unusable-input',
        `at /expected: found ${expected}; expected an instance of the course’s template`,
      )
    if (what !== 'forget' && !ids.has(found))
      throw new HttpProblem(
        400,
        'unusable-input',
        `at /found: found ${found}; expected the id of a module or item of the course`,
      )
    return andJudgeAgain(handling, stored, async (database) => {
      if (what === 'forget') {
        if (!(await forgetJoin(database, id, expected, found))) throw notFound('join')
      } else await putJoin(database, id, { what, expected, found }, person.email)
      await recordAudit(database, {
        who: person.email,
        what: `pair: ${what}`,
        subject: `course ${id}`,
        to: { expected, found },
      })
    })
  },
  askWaiver: async (handling) => {
    const { person, today, body } = handling
    const stored = await courseIn(handling)
    const { id } = stored.summary
    const { fingerprint, scope, until, reason } = body
    if (until !== null && until < today)
      throw new HttpProblem(
        400,
        'unusable-input',
        `at /until: found ${until}; expected today or later`,
      )
    const { outcome, place } = await toldAt(handling, id, fingerprint)
    if (outcome.outcome !== 'failed')
      throw new HttpProblem(
        409,
        'nothing-to-waive',
        'that requirement is not open; there is nothing to waive',
      )
    const approved = may(person, 'decide waivers')
    const waiver = {
      scope,
      rule: outcome.rule,
      fingerprint: scope === 'rule' ? null : fingerprint,
      evidence: place?.digest ?? null,
      from: today,
      until,
      reason,
    }
    return andJudgeAgain(handling, stored, async (database) => {
      const given = await addWaiver(database, id, waiver, person.email, approved)
      await recordAudit(database, {
        who: person.email,
        what: approved ? 'waiver given' : 'waiver asked for',
        subject: `course ${id}`,
        to: { waiver: given, ...waiver },
      })
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
    if (decision !== 'withdraw' && !may(person, 'decide waivers'))
      throw new HttpProblem(403, 'role', 'only a designer or an administrator decides on a waiver')
    if (
      decision === 'withdraw' &&
      !may(person, 'decide waivers') &&
      waiver.askedBy !== person.email
    )
      throw new HttpProblem(
        403,
        'role',
        'only whoever asked for a waiver, a designer or an administrator withdraws it',
      )
    const [from, to] =
      decision === 'withdraw'
        ? ([['asked', 'approved'], 'withdrawn'] as const)
        : ([['asked'], decision === 'approve' ? 'approved' : 'refused'] as const)
    return andJudgeAgain(handling, stored, async (database) => {
      if (!(await decideWaiver(database, id, waiverId, from, to, person.email, answer)))
        throw new HttpProblem(409, 'decided', `the waiver is ${waiver.state} already`)
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
    const { fingerprint, words, takeBack } = body
    if (takeBack)
      return andJudgeAgain(handling, stored, async (database) => {
        if (!(await takeAttestationBack(database, id, fingerprint))) throw notFound('attestation')
        await recordAudit(database, {
          who: person.email,
          what: 'attestation taken back',
          subject: `course ${id}`,
          to: { fingerprint, words },
        })
      })
    const { outcome } = await toldAt(handling, id, fingerprint)
    if (outcome.outcome !== 'cannot-tell' && outcome.rule !== 'tool-not-attested')
      throw new HttpProblem(
        409,
        'seen',
        'what the snapshot shows is not a matter of somebody’s word; ask for a waiver instead',
      )
    return andJudgeAgain(handling, stored, async (database) => {
      await addAttestation(database, id, {
        rule: outcome.rule,
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
        to: { rule: outcome.rule, fingerprint, words },
      })
    })
  },
  followUp: async (handling) => {
    const { person, pool, today, query, body } = handling
    const stored = await courseIn(handling)
    const { id } = stored.summary
    const put = body
    if ((put.does === 'raise' || put.does === 'close') && !may(person, 'raise findings'))
      throw new HttpProblem(
        403,
        'role',
        'only a designer or an administrator raises or closes a finding',
      )
    if (put.does === 'promise' && put.by < today)
      throw new HttpProblem(
        400,
        'unusable-input',
        `at /by: found ${put.by}; expected today or later`,
      )
    const result = put.does === 'raise' ? await findCheck(pool, id, query.asOf ?? today) : null
    await inTransaction(pool, async (database) => {
      for (const fingerprint of put.fingerprints) {
        if (put.does === 'raise') {
          const finding = result?.findings.find((one) =>
            one.places.some((place) => place.fingerprint === fingerprint),
          )
          const place = finding?.places.find((one) => one.fingerprint === fingerprint)
          if (!finding || !place)
            throw notFound('finding in the latest check of the course; check it again')
          const owner =
            put.owner ?? finding.owner ?? stored.facts.owner ?? stored.facts.instructors[0]?.email
          if (owner === undefined)
            throw new HttpProblem(
              409,
              'nobody',
              'the course has no instructor; say with whom it is raised',
            )
          await raiseFollowUp(database, id, {
            fingerprint,
            owner,
            message: place.message,
            note: put.note,
            by: person.email,
          })
          continue
        }
        const done =
          put.does === 'promise'
            ? await promiseFollowUp(database, id, fingerprint, put.by, put.answer, person.email)
            : put.does === 'answer'
              ? await answerFollowUp(database, id, fingerprint, put.answer, person.email)
              : await closeFollowUp(database, id, fingerprint)
        if (!done)
          throw new HttpProblem(
            409,
            'not-raised',
            'that finding is not raised, or it is settled already',
          )
      }
      await recordAudit(database, {
        who: person.email,
        what: `finding: ${put.does}`,
        subject: `course ${id}`,
        to: put,
      })
    })
    return {}
  },
  notThisWeek: async (handling) => {
    const { person, pool, today, query, body } = handling
    const stored = await courseIn(handling)
    const { id } = stored.summary
    const { instance, leftOut } = body
    const result = await findCheck(pool, id, query.asOf ?? today)
    if (leftOut && !result?.missing.includes(instance))
      throw new HttpProblem(409, 'not-missing', 'that part is in the course, so it is not left out')
    return andJudgeAgain(handling, stored, async (database) => {
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
