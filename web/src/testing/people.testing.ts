import type { Me } from '@wickerframe/contract'
import { roles, type Role } from '@wickerframe/contract/capabilities'
import { personOf } from '@wickerframe/contract/testing'

/** Somebody of each role, as the session tells of them. */
export const people = Object.fromEntries(
  roles.map((role) => [role, { ...personOf(role), today: '2026-09-16', theme: 'as the device' }]),
) as Record<Role, Me>
