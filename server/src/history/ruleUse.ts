import type { RuleUse } from '@wickerframe/contract'
import { rulesDocument } from '@wickerframe/core'
import { rowsOf, type Database, type Value } from '@wickerframe/storage'
import { visibleTo } from '../courses/visible.ts'
import type { Person } from '../people/people.ts'

/** So many days and longer a place stands open before that counts against its rule. */
const longDays = 14

interface Seen {
  where: string
  values: Value[]
}
type Counted = { rule: string; count: number }

const byRule = (rows: readonly Counted[]): Map<string, number> =>
  new Map(rows.map(({ rule, count }) => [rule, Number(count)]))

/**
 * How each rule fared in the courses somebody may see, those first that most speaks against: waived, answered for, open for
 * long. A place that was waived is neither mended nor gone.
 */
export const ruleUse = async (
  database: Database,
  person: Person,
  today: string,
): Promise<RuleUse[]> => {
  const seen = visibleTo(person, 'finding_spells.course_id')
  const spells = new Map((await spellRows(database, seen, today)).map((row) => [row.rule, row]))
  const planned = byRule(await plannedRows(database, seen))
  const answered = byRule(await answeredRows(database, seen))
  const waived = byRule(await waivedRows(database, visibleTo(person, 'waivers.course_id'), today))
  const against = ({ waived, answered, openLong }: RuleUse): number => waived + answered + openLong
  return rulesDocument()
    .rules.map(({ id, group, title, why, strength, parameters }): RuleUse => {
      const row = spells.get(id)
      const byPlan = planned.get(id) ?? 0
      return {
        id,
        group,
        title,
        why,
        strength,
        parameters,
        found: Number(row?.found ?? 0),
        courses: Number(row?.courses ?? 0),
        planned: byPlan,
        otherwise: Math.max(0, Number(row?.gone ?? 0) - byPlan),
        waived: waived.get(id) ?? 0,
        answered: answered.get(id) ?? 0,
        open: Number(row?.open ?? 0),
        openLong: Number(row?.openLong ?? 0),
      }
    })
    .sort((a, b) => against(b) - against(a) || b.found - a.found || (a.title < b.title ? -1 : 1))
}

const spellRows = (database: Database, seen: Seen, today: string) =>
  rowsOf<{
    rule: string
    found: number
    courses: number
    gone: number
    open: number
    openLong: number
  }>(
    database,
    `SELECT finding_spells.rule, COUNT(*) AS found,
       COUNT(DISTINCT finding_spells.course_id) AS courses,
       SUM(
         finding_spells.went IS NOT NULL
           AND NOT EXISTS (
             SELECT 1
             FROM waivers
             WHERE waivers.course_id = finding_spells.course_id
               AND waivers.rule = finding_spells.rule
               AND waivers.state = 'approved'
               AND (waivers.fingerprint IS NULL OR waivers.fingerprint = finding_spells.fingerprint)
           )
       ) AS gone, SUM(finding_spells.went IS NULL) AS open,
       SUM(
         finding_spells.went IS NULL
           AND finding_spells.came <= DATE_SUB(?, INTERVAL ${longDays} DAY)
       ) AS openLong
     FROM finding_spells
     WHERE ${seen.where}
     GROUP BY finding_spells.rule`,
    [today, ...seen.values],
  )

/** Places that were among the mends of a plan that was carried out, and are gone. */
const plannedRows = (database: Database, seen: Seen) =>
  rowsOf<Counted>(
    database,
    `SELECT finding_spells.rule, COUNT(DISTINCT finding_spells.id) AS count
     FROM runs
     JOIN tasks ON tasks.run_id = runs.id AND tasks.state = 'done'
     JOIN JSON_TABLE(
       tasks.proposal, '$[*]' COLUMNS (fingerprint VARCHAR(100) PATH '$.fingerprint')
     ) AS mends
     JOIN finding_spells
       ON finding_spells.course_id = tasks.course_id
       AND finding_spells.fingerprint = mends.fingerprint
       AND finding_spells.went IS NOT NULL
     WHERE runs.kind = 'mends' AND (${seen.where})
     GROUP BY finding_spells.rule`,
    seen.values,
  )

const answeredRows = (database: Database, seen: Seen) =>
  rowsOf<Counted>(
    database,
    `SELECT finding_spells.rule,
       COUNT(DISTINCT follow_ups.course_id, follow_ups.fingerprint) AS count
     FROM follow_ups
     JOIN finding_spells
       ON finding_spells.course_id = follow_ups.course_id
       AND finding_spells.fingerprint = follow_ups.fingerprint
     WHERE follow_ups.state IN ('answered', 'closed')
       AND follow_ups.answer <> ''
       AND (${seen.where})
     GROUP BY finding_spells.rule`,
    seen.values,
  )

const waivedRows = (database: Database, seen: Seen, today: string) =>
  rowsOf<Counted>(
    database,
    `SELECT waivers.rule, COUNT(*) AS count
     FROM waivers
     WHERE waivers.state = 'approved'
       AND waivers.rule IS NOT NULL
       AND (waivers.until_date IS NULL OR waivers.until_date >= ?)
       AND (waivers.course_id IS NULL OR ${seen.where})
     GROUP BY waivers.rule`,
    [today, ...seen.values],
  )
