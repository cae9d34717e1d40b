import { z } from 'zod'
import { roles } from '../capabilities.ts'
import { Done, Words, type Routes } from './asked.ts'
import { Email, PersonName } from './session.ts'

/**
 * How far somebody is: known from the roster and never asked in, invited (a link is open), may sign in, not any more, or has
 * left for good and has no name here.
 */
export const personStates = ['known', 'invited', 'active', 'deactivated', 'left'] as const
export type PersonState = (typeof personStates)[number]

const Roles = z
  .array(z.enum(roles))
  .max(roles.length)
  .refine((held) => new Set(held).size === held.length, 'each role once')
const Departments = z
  .array(z.string().trim().min(1).max(40))
  .max(100)
  .refine((named) => new Set(named).size === named.length, 'each department once')

export const PersonEntry = z.strictObject({
  id: z.number(),
  email: z.string(),
  name: z.string(),
  roles: z.array(z.enum(roles)),
  departments: z.array(z.string()),
  state: z.enum(personStates),
  /** When they last signed in; null: never. */
  signedInAt: z.string().nullable(),
  /** Until when a link of theirs is open. */
  linkUntil: z.string().nullable(),
  /** Why mail to them was refused for good, the last time; null: it was not. */
  mailProblem: z.string().nullable(),
  /** Counts what was changed: an edit names the one it was made on. */
  revision: z.number(),
})
export type PersonEntry = z.output<typeof PersonEntry>
export const PeoplePage = z.strictObject({
  people: z.array(PersonEntry),
  /** Of those asked for, in all. */
  total: z.number(),
  /** Of everybody, by state. */
  counts: z.record(z.enum(personStates), z.number()),
  /** Departments that courses have. */
  departments: z.array(z.string()),
  /** Ask with `after` for those that follow; null at the end. */
  after: z.number().nullable(),
})
export type PeoplePage = z.output<typeof PeoplePage>

/** A link that lets somebody in, once. It is told here only: nobody can read it again. */
export const OpenLink = z.strictObject({
  email: z.string(),
  name: z.string(),
  link: z.string(),
  until: z.string(),
})
export type OpenLink = z.output<typeof OpenLink>

const was = z.number().int().min(0).describe('The revision that was looked at')

export const AccountRequest = z.strictObject({
  id: z.number(),
  email: z.string(),
  name: z.string(),
  words: z.string(),
  askedAt: z.string(),
})
export type AccountRequest = z.output<typeof AccountRequest>

/** What is kept about somebody: by table, as it is kept. */
export const KeptAbout = z.record(z.string(), z.unknown())

export const peopleRoutes = {
  listPeople: {
    method: 'get',
    path: '/api/people',
    summary: 'Everybody who may sign in or could, by name, in pages',
    may: 'manage people',
    query: z.strictObject({
      search: z.string().max(200).optional().describe('Part of a name or an e-mail address'),
      role: z.enum(roles).optional(),
      state: z.enum(personStates).optional(),
      department: z.string().max(40).optional(),
      after: z.coerce.number().int().positive().optional().describe('Goes on after somebody’s id'),
    }),
    answer: PeoplePage,
  },
  invitePerson: {
    method: 'post',
    path: '/api/people',
    summary: 'Invite somebody: the answer has the one-time link',
    may: 'manage people',
    body: z.strictObject({
      email: Email,
      name: PersonName,
      roles: Roles.min(1),
      departments: Departments,
    }),
    answer: OpenLink,
  },
  inviteKnown: {
    method: 'post',
    path: '/api/people/known/invite',
    summary: 'Invite every instructor whom the roster names and who has no account',
    may: 'manage people',
    body: z.strictObject({
      again: z
        .boolean()
        .default(false)
        .describe('Also those who were invited and did not come yet; the links they have end'),
    }),
    answer: z.strictObject({ links: z.array(OpenLink) }),
  },
  changePerson: {
    method: 'post',
    path: '/api/people/:person',
    summary: 'Change somebody’s name, roles and departments',
    may: 'manage people',
    body: z.strictObject({ was, name: PersonName, roles: Roles, departments: Departments }),
    answer: PersonEntry,
  },
  deactivatePerson: {
    method: 'post',
    path: '/api/people/:person/deactivate',
    summary: 'Nobody signs in as them from now on; or again',
    may: 'manage people',
    body: z.strictObject({ was, deactivated: z.boolean() }),
    answer: PersonEntry,
  },
  takePersonOut: {
    method: 'post',
    path: '/api/people/:person/take-out',
    summary: 'Somebody has left: their name goes from everything, for good',
    may: 'manage people',
    body: z.strictObject({ was }),
    answer: PersonEntry,
  },
  keptAboutPerson: {
    method: 'get',
    path: '/api/people/:person/kept',
    summary: 'What is kept about somebody, as a file',
    may: 'manage people',
    answer: KeptAbout,
  },
  signPersonOut: {
    method: 'post',
    path: '/api/people/:person/sign-out',
    summary: 'End every session of somebody',
    may: 'manage people',
    answer: Done,
  },
  linkForPerson: {
    method: 'post',
    path: '/api/people/:person/link',
    summary: 'A new one-time link: to be let in, or to set another password; an older one ends',
    may: 'manage people',
    answer: OpenLink,
  },
  listAccountRequests: {
    method: 'get',
    path: '/api/account-requests',
    summary: 'Who asked for an account and has no answer yet, oldest first',
    may: 'manage people',
    answer: z.array(AccountRequest),
  },
  answerAccountRequest: {
    method: 'post',
    path: '/api/account-requests/:request',
    summary: 'Let somebody in who asked, or refuse',
    may: 'manage people',
    body: z.discriminatedUnion('answer', [
      z.strictObject({
        answer: z.literal('let in'),
        roles: Roles.min(1),
        departments: Departments,
      }),
      z.strictObject({ answer: z.literal('refuse'), why: Words }),
    ]),
    answer: z.strictObject({ link: OpenLink.nullable() }),
  },
} as const satisfies Routes
