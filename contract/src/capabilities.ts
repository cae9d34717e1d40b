export const roles = ['designer', 'contributor', 'instructor', 'reviewer', 'administrator'] as const
export type Role = (typeof roles)[number]
export const isRole = (text: string): text is Role => (roles as readonly string[]).includes(text)

/** What somebody is to one course: one of their roles, or somebody who helps those who teach it, which is no role of its own. */
export const courseRoles = [...roles, 'assistant'] as const
export type CourseRole = (typeof courseRoles)[number]

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
  /** Which ones, says `courseScopes`. */
  'see courses': courseRoles,
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
  'look after course': [...teachers, 'assistant'],
  /** What is decided for one course and stands for it: waivers, one's word, its calendar, its people. */
  'decide for course': teachers,
  'read audit': ['administrator'],
  /** Accounts: who may sign in, and as what. */
  'manage people': ['administrator'],
} as const satisfies Readonly<Record<string, readonly CourseRole[]>>
export type Capability = keyof typeof capabilities

/** Somebody, as far as what they may do goes. */
export interface Acting {
  /** One or more. */
  roles: readonly CourseRole[]
}

/** Whether somebody may do something; rows are narrowed further. */
export const may = ({ roles }: Acting, capability: Capability): boolean =>
  rolesThat(roles, capability).length > 0

/** Those of some roles that may do something. */
export const rolesThat = <R extends CourseRole>(
  roles: readonly R[],
  capability: Capability,
): R[] => {
  const allowed: readonly CourseRole[] = capabilities[capability]
  return roles.filter((role) => allowed.includes(role))
}

/**
 * Which courses a role is about: all of the college, those of some departments (all where none is named), those under
 * templates one contributes to and under what is built on them, or those one teaches.
 */
export const courseScopes = {
  administrator: 'college',
  designer: 'departments',
  reviewer: 'departments',
  contributor: 'layers',
  instructor: 'taught',
} as const satisfies Readonly<Record<Role, string>>

/** Whether every course is somebody's to see. */
export const seesWholeCollege = ({
  roles,
  departments,
}: {
  roles: readonly Role[]
  departments: readonly string[]
}): boolean =>
  roles.some(
    (role) =>
      courseScopes[role] === 'college' ||
      (courseScopes[role] === 'departments' && departments.length === 0),
  )

const andList = (names: readonly string[]): string =>
  names.length < 2 ? names.join('') : `${names.slice(0, -1).join(', ')} and ${names.at(-1) ?? ''}`

/** Who may, in words: `designers and administrators`. */
export const whoMay = (capability: Capability): string =>
  andList(capabilities[capability].filter((role) => role !== 'assistant').map((role) => `${role}s`))

/** Roles in words: `designer and instructor`. */
export const rolesInWords = (held: readonly Role[]): string => andList(held)
