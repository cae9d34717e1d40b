import { z } from 'zod'
import type { Routes } from './asked.ts'

/** One thing that was done. */
export const AuditEntry = z.strictObject({
  id: z.number(),
  at: z.string(),
  who: z.string(),
  what: z.string(),
  subject: z.string(),

  /** As JSON, shortened; null where nothing was kept. */
  from: z.string().nullable(),
  to: z.string().nullable(),
})
export type AuditEntry = z.output<typeof AuditEntry>
export const AuditPage = z.strictObject({
  entries: z.array(AuditEntry),

  /** Every kind of thing that was done so far. */
  kinds: z.array(z.string()),

  /** Ask with `before` for older ones; null at the end. */
  before: z.number().nullable(),
})
export type AuditPage = z.output<typeof AuditPage>

const Filter = z.string().max(200).optional()

export const auditRoutes = {
  listAudit: {
    method: 'get',
    path: '/api/audit',
    summary: 'Who did what, newest first',
    may: 'read audit',
    query: z.strictObject({
      who: Filter,
      what: Filter,
      subject: Filter,
      before: z.coerce.number().int().positive().optional().describe('Goes on from an id'),
    }),
    answer: AuditPage,
  },
} as const satisfies Routes
