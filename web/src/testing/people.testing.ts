import type { Me } from '@wickerframe/contract'
import { roles } from '@wickerframe/contract/capabilities'

const person = (role: Me['role']): Me => ({
  name: `Quill ${role}`,
  email: `${role}@kestrelsound.example`,
  role,
  today: '2026-09-16',
})
/** Somebody of each role, as the session tells of them. */
export const people = Object.fromEntries(roles.map((role) => [role, person(role)])) as Record<
  Me['role'],
  Me
>
