import type { StandingRule, standingRuleRoutes, StandingRules } from '@wickerframe/contract'
import type { HandlersOf } from '../http/handler.ts'
import { mustLookAfter } from '../courses/departments.ts'
import { inTransaction } from '@wickerframe/storage'
import { recordAudit } from '../audit/audit.ts'
import { listCourses } from '../courses/courses.ts'
import { addStandingRule, listStandingRules, removeStandingRule } from './standingRules.ts'
import { notFound } from '../http/problem.ts'

const isFor = (
  rule: StandingRule,
  course: { department: string; modality: string; weeks: number },
): boolean =>
  (rule.department === null || rule.department === course.department) &&
  (rule.modality === null || rule.modality === course.modality) &&
  (rule.weeks === null || rule.weeks === course.weeks)

export const standingRuleHandlers: HandlersOf<typeof standingRuleRoutes> = {
  /** The rules, and what they say of every course that could get a template. */
  listStandingRules: async ({ pool, person, today }) => {
    const rules = await listStandingRules(pool)
    const answer: StandingRules = { rules, fits: [], none: [], several: [] }
    for (const { summary } of await listCourses(pool, person, today)) {
      if (summary.status !== 'teaching' && summary.status !== 'preparing') continue
      const templates = new Map(
        rules
          .filter((rule) => isFor(rule, summary))
          .map((rule) => [rule.template.key, rule.template.title]),
      )
      if (templates.size === 0) answer.none.push(summary.id)
      else if (templates.size > 1)
        answer.several.push({ course: summary.id, templates: [...templates.values()] })
      else
        for (const [template, title] of templates) {
          const fit = answer.fits.find((fit) => fit.template === template)
          if (fit) fit.courses.push(summary.id)
          else answer.fits.push({ template, title, courses: [summary.id] })
        }
    }
    return answer
  },
  addStandingRule: async ({ pool, person, body }) => {
    const wanted = body
    mustLookAfter(person, [wanted.department])
    const rule = await inTransaction(pool, async (database) => {
      const id = await addStandingRule(database, wanted, person.email)
      if (id !== null)
        await recordAudit(database, {
          who: person.email,
          what: 'standing rule added',
          subject: `rule ${id}`,
          to: wanted,
        })
      return id
    })
    if (rule === null) throw notFound('template')
    return { rule }
  },
  removeStandingRule: async ({ pool, person, at }) => {
    const id = at.rule
    const rule = (await listStandingRules(pool)).find((each) => each.id === id)
    if (!rule) throw notFound('rule')
    mustLookAfter(person, [rule.department])
    const removed = await inTransaction(pool, async (database) => {
      const gone = await removeStandingRule(database, id)
      if (gone)
        await recordAudit(database, {
          who: person.email,
          what: 'standing rule removed',
          subject: `rule ${id}`,
        })
      return gone
    })
    if (!removed) throw notFound('rule')
    return {}
  },
}
