import type { PersonState } from '@wickerframe/contract'

/** How far somebody is, in words. */
export const stateWords: Readonly<Record<PersonState, string>> = {
  active: 'may sign in',
  invited: 'invited',
  known: 'known, not invited',
  deactivated: 'deactivated',
  left: 'has left',
}
