import type { StandingRule } from '@wickerframe/contract'
import { change, rowsOf, type Database, institutionNow } from '@wickerframe/storage'
import { findTemplateId } from '../templates/templates.ts'

export const listStandingRules = async (database: Database): Promise<StandingRule[]> =>
  (
    await rowsOf<Omit<StandingRule, 'template'> & { key: string; title: string }>(
      database,
      `SELECT standing_rules.id, standing_rules.department, standing_rules.modality,
         standing_rules.weeks, templates.template_key AS \`key\`, templates.title
       FROM standing_rules
       JOIN templates ON templates.id = standing_rules.template_id
       ORDER BY standing_rules.id`,
    )
  ).map(({ key, title, ...rule }) => ({ ...rule, template: { key, title } }))

/** @returns the new rule's id, or null when there is no such template */
export const addStandingRule = async (
  database: Database,
  rule: {
    department: string | null
    modality: string | null
    weeks: number | null
    template: string
  },
  by: string,
): Promise<number | null> => {
  const templateId = await findTemplateId(database, rule.template)
  if (templateId === null) return null
  return (
    await change(
      database,
      `INSERT INTO standing_rules (department, modality, weeks, template_id, created_by, created_at)
       VALUES (?, ?, ?, ?, ?, ${institutionNow})`,
      [rule.department, rule.modality, rule.weeks, templateId, by],
    )
  ).id
}

export const removeStandingRule = async (database: Database, id: number): Promise<boolean> =>
  (
    await change(
      database,
      `DELETE FROM standing_rules
       WHERE id = ?`,
      [id],
    )
  ).affected === 1
