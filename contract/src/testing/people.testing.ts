import type { Role } from '../capabilities.ts'

/** The password of everybody in tests. */
export const testPassword = 'fair-winds-2026'

/** Somebody of a role, for tests of any kind; several of one role are told apart by what stands before the @. */
export const personOf = (
  role: Role,
  account: string = role,
): { name: string; email: string; roles: Role[]; departments: string[] } => ({
  name: account === role ? `Quill ${role}` : account,
  email: `${account}@kestrelsound.example`,
  roles: [role],
  departments: [],
})
