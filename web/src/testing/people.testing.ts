import type { Me } from '@wickerframe/contract'
import { roles } from '@wickerframe/contract/capabilities'
import { personOf } from '@wickerframe/contract/testing'

/** Somebody of each role, as the session tells of them. */
export const people = Object.fromEntries(
  roles.map((role) => [role, { ...personOf(role), today: '2026-09-16' }]),
) as Record<Me['role'], Me>
