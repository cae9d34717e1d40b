export const roles = ['designer', 'contributor', 'instructor', 'reviewer', 'administrator'] as const
export type Role = (typeof roles)[number]

const everybody: readonly Role[] = roles
const readers: readonly Role[] = ['designer', 'contributor', 'reviewer', 'administrator']
const designers: readonly Role[] = ['designer', 'administrator']
const teachers: readonly Role[] = ['designer', 'administrator', 'instructor']

/**
 * Who may do what. Routes name what they ask for, screens and their controls ask the same table; rows are narrowed further,
 * by whose courses and whose drafts they are.
 */
export const capabilities = {
  /** One's own account, messages and sessions. */
  'use account': everybody,
  /** Courses that are one's own, those of one's layers, or all. */
  'see courses': everybody,
  'see every course': ['designer', 'reviewer', 'administrator'],
  /** Courses under templates one contributes to, and under what is built on them. */
  'see courses of layers': ['contributor'],
  'see templates': readers,
  'see college': readers,
  comment: readers,
  /** Drafts: a contributor those they were let into. */
  'edit drafts': ['designer', 'contributor', 'administrator'],
  'edit every draft': designers,
  /** Making, releasing, retiring templates, and letting others in. */
  'keep templates': designers,
  'keep library': designers,
  'keep terms': designers,
  /** The roster, making and merging courses, next term. */
  'keep courses': designers,
  'roll out': designers,
  rename: designers,
  'check courses': designers,
  'mend courses': designers,
  'join pairs': designers,
  'decide waivers': designers,
  'raise findings': designers,
  /** What a rule leaves to administrators of the platform. */
  'mend for administrators': designers,
  /** Checking, mending, answering for a single course one looks after. */
  'look after course': teachers,
  'read audit': ['administrator'],
} as const satisfies Readonly<Record<string, readonly Role[]>>
export type Capability = keyof typeof capabilities

/** Whether somebody may do something; rows are narrowed further. */
export const may = ({ role }: { role: Role }, capability: Capability): boolean => {
  const allowed: readonly Role[] = capabilities[capability]
  return allowed.includes(role)
}

/** Who may, in words: `designers and administrators`. */
export const whoMay = (capability: Capability): string => {
  const names = capabilities[capability].map((role) => `${role}s`)
  return names.length < 2
    ? names.join('')
    : `${names.slice(0, -1).join(', ')} and ${names.at(-1) ?? ''}`
}
