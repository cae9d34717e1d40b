import { CourseStatus, type MergeReport, type mergeRoutes } from '@wickerframe/contract'
import type { HandlersOf } from '../http/handler.ts'
import { courseValues, formatOf, peopleOf, renderName } from '@wickerframe/core'
import { inTransaction } from '@wickerframe/storage'
import { digestOf } from '../digest.ts'
import { recordAudit } from '../audit/audit.ts'
import { findCourse } from '../courses/courses.ts'
import { findMerge, mergeInto, unmerge } from './classSectionMerges.ts'
import { findVersion } from '../templates/templates.ts'
import { answered } from '../http/answered.ts'
import { HttpProblem, notFound } from '../http/problem.ts'
import { mustBeAsShown } from '../http/shown.ts'

export const mergeHandlers: HandlersOf<typeof mergeRoutes> = {
  /** Merges a course into another one: its class sections and people move, its content stays where it is. Dry: only says what that means. */
  mergeCourse: async (handling) => {
    const { pool, connector, person, today, at, body } = handling
    const { into, dry, shown } = body
    const id = at.course
    const [from, to] = [
      await findCourse(pool, id, person, today),
      await findCourse(pool, into, person, today),
    ]
    if (!from || !to || id === into) throw notFound('course to merge into')
    if (from.summary.term !== to.summary.term)
      throw new HttpProblem(409, 'other-term', 'only courses of one term are merged')
    if (from.summary.status === 'merged')
      throw new HttpProblem(409, 'merged', 'it is merged already')
    const sections = [
      ...new Set([...to.summary.classSections, ...from.summary.classSections]),
    ].sort()
    const there = peopleOf(to.facts)
    // Whoever owned the other one teaches on; the owner of this one stays.
    const coming = peopleOf(from.facts)
    const teaches = (email: string) =>
      coming.some((person) => person.email === email && person.duty !== 'assistant')
    const people = [
      // Who only helps here and teaches there teaches what comes here.
      ...there.map((person) =>
        person.duty === 'assistant' && teaches(person.email)
          ? { ...person, duty: 'instructor' as const }
          : person,
      ),
      ...coming
        .filter((person) => !there.some((other) => other.email === person.email))
        .map((person) =>
          person.duty === 'owner' ? { ...person, duty: 'instructor' as const } : person,
        ),
    ]
    const teaching = people.filter(({ duty }) => duty !== 'assistant')
    const version =
      to.templateId !== null && to.summary.template
        ? await findVersion(pool, to.summary.template.key, to.summary.template.version)
        : null
    const name = version
      ? renderName(
          formatOf(version.document.naming.courseName),
          courseValues({ ...to.facts, classSections: sections, instructors: teaching }),
        ).text
      : null
    const present = version
      ? renderName(formatOf(version.document.naming.courseName), courseValues(to.facts)).text
      : null
    const consequences = [
      `${from.summary.code} ${from.summary.classSections.join(', ')} is merged into ${to.summary.code} ${to.summary.classSections.join(', ')}, which then has class sections ${sections.join(', ')}`,
      name !== null && name !== present
        ? `its name becomes “${name}” with its next update`
        : 'its name stays as it is',
      `${teaching.length} ${teaching.length === 1 ? 'person teaches' : 'people teach'} it: ${teaching.map((person) => person.name).join(', ') || 'nobody yet'}`,
      'what stands in the merged course stays there, with its history and its identity; nothing of it is copied or removed',
      'one course fewer counts in conformance',
    ]
    const digest = digestOf({ id, into, sections, people, consequences })
    const report: MergeReport = { dry, consequences, digest }
    if (dry) return report
    mustBeAsShown(shown, digest)
    answered(
      await connector.enrol(
        to.summary.platformId,
        teaching.map(({ name, email }) => ({ name, email })),
      ),
      'enrol the people',
    )
    answered(
      await connector.setStatus(from.summary.platformId, 'merged'),
      'mark the course as merged',
    )
    await inTransaction(pool, async (database) => {
      await mergeInto(
        database,
        id,
        into,
        {
          status: CourseStatus.parse(from.summary.status),
          classSections: to.summary.classSections,
          people: there,
        },
        { classSections: sections, people },
        person.email,
      )
      await recordAudit(database, {
        who: person.email,
        what: 'merged',
        subject: `course ${id}`,
        to: { into },
      })
    })
    return report
  },
  /** Takes a merge back; dry: only says what that means. */
  unmergeCourse: async (handling) => {
    const { pool, connector, person, today, at, body } = handling
    const { dry, shown } = body
    const id = at.course
    const from = await findCourse(pool, id, person, today)
    const merge = from && (await findMerge(pool, id))
    const to = merge && (await findCourse(pool, merge.into, person, today))
    if (!from || !merge || !to) throw notFound('merge')
    const named = ({ summary }: typeof from) =>
      `${summary.code} ${summary.classSections.join(', ')}`
    const consequences = [
      `${named(from)} stands by itself again and is ${merge.before.status}`,
      `${to.summary.code} has class sections ${merge.before.classSections.join(', ')} again, and what came to it since`,
      'whoever was enrolled in it on the platform stays enrolled there; take them out there if they are not to see it',
      'one course more counts in conformance',
    ]
    const digest = digestOf({
      id,
      merge,
      now: to.summary.classSections,
      people: peopleOf(to.facts),
    })
    const report: MergeReport = { dry, consequences, digest }
    if (dry) return report
    mustBeAsShown(shown, digest)
    answered(
      await connector.setStatus(from.summary.platformId, merge.before.status),
      'set the status of the course',
    )
    await inTransaction(pool, async (database) => {
      await unmerge(
        database,
        id,
        merge,
        { classSections: to.summary.classSections, people: peopleOf(to.facts) },
        { classSections: from.summary.classSections, people: peopleOf(from.facts) },
      )
      await recordAudit(database, {
        who: person.email,
        what: 'merge taken back',
        subject: `course ${id}`,
        from: { into: merge.into },
      })
    })
    return report
  },
}
