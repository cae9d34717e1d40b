import type { auditRoutes } from '@wickerframe/contract'
import type { HandlersOf } from '../http/handler.ts'
import { listAudit, listAuditKinds } from './audit.ts'

const shown = 100

export const auditHandlers: HandlersOf<typeof auditRoutes> = {
  listAudit: async ({ pool, query: { who, what, subject, before } }) => {
    const entries = await listAudit(
      pool,
      { who: who || null, what: what || null, subject: subject || null, before: before ?? null },
      shown + 1,
    )
    return {
      entries: entries.slice(0, shown),
      kinds: await listAuditKinds(pool),
      before: entries.length > shown ? (entries[shown - 1]?.id ?? null) : null,
    }
  },
}
