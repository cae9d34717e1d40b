import type { waiverRoutes } from '@wickerframe/contract'
import { mayToCourse } from '../courses/visible.ts'
import type { HandlersOf } from '../http/handler.ts'
import { recordAudit } from '../audit/audit.ts'
import { addAttestation, takeAttestationBack } from './attestations.ts'
import { leaveOutThisWeek, takeInThisWeek } from './notThisWeek.ts'
import { addWaiver, decideWaiver, findWaiver } from './waivers.ts'
import { findCheck } from '../checks/checks.ts'
import { HttpProblem, notFound } from '../http/problem.ts'
import { courseIn } from '../courses/routes.ts'
import { andCheckAgain, toldAt, toldAtAll } from '../checks/toldAt.ts'

const firstOfEachRule = <Waiver extends { rule: string }>(waivers: readonly Waiver[]): Waiver[] => [
  ...new Map(waivers.toReversed().map((waiver) => [waiver.rule, waiver])).values(),
]

export const waiverHandlers: HandlersOf<typeof waiverRoutes> = {
  askWaiver: async (handling) => {
    const { pool, person, today, body } = handling
    const stored = await courseIn(handling)
    const { id } = stored.summary
    const { fingerprints, scope, until, reason } = body
    if (until !== null && until < today)
      throw new HttpProblem(
        400,
        'unusable-input',
        `at /until: found ${until}; expected today or later`,
      )
    const told = await toldAtAll(handling, id, new Set(fingerprints))
    if (told.some(({ outcome }) => outcome.outcome !== 'failed'))
      throw new HttpProblem(
        409,
        'nothing-to-waive',
        'one of the requirements is not open, so there is nothing to waive; check again',
      )
    const approved = await mayToCourse(pool, person, 'decide waivers', id)
    const waivers = told.map(({ outcome, place }) => ({
      scope,
      rule: outcome.rule,
      fingerprint: scope === 'rule' ? null : outcome.fingerprint,
      evidence: place?.digest ?? null,
      from: today,
      until,
      reason,
    }))
    return andCheckAgain(handling, stored, async (database) => {
      for (const waiver of scope === 'rule' ? firstOfEachRule(waivers) : waivers) {
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
      return andCheckAgain(handling, stored, async (database) => {
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
    return andCheckAgain(handling, stored, async (database) => {
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
