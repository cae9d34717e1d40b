import type { AuditPage } from '@wickerframe/contract'
import { listAudit, listAuditKinds } from '../../repositories/audit.ts'
import type { Handler } from '../handler.ts'

const shown = 100

export const getAudit: Handler = async ({ request, pool }): Promise<AuditPage> => {
  const given = (name: string): string | null => {
    const value = request.query[name]
    return typeof value === 'string' && value !== '' ? value.slice(0, 200) : null
  }
  const before = Number(given('before'))
  const entries = await listAudit(
    pool,
    {
      who: given('who'),
      what: given('what'),
      subject: given('subject'),
      before: Number.isSafeInteger(before) && before > 0 ? before : null,
    },
    shown + 1,
  )
  return {
    entries: entries.slice(0, shown),
    kinds: await listAuditKinds(pool),
    before: entries.length > shown ? (entries[shown - 1]?.id ?? null) : null,
  }
}
