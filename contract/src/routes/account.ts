import { z } from 'zod'
import { Done, type Routes } from './asked.ts'
import { Email, Me, NewPassword, PersonName, themes } from './session.ts'

/** The secret of a one-time link, as it stands in its address. */
const LinkToken = z.string().min(1).max(100)

/** What somebody chose for themselves. */
export const mailWords = ['never', 'daily', 'at once'] as const

export const Preferences = z.strictObject({
  theme: z.enum(themes).default('as the device'),
  /** Whether they are told that a rollout of theirs has ended. */
  tellOfRollouts: z.boolean().default(true),
  /** Whether they are told what others change in templates that they look after. */
  tellOfTemplates: z.boolean().default(true),
  /** Whether they are told what they are in a course, when somebody else decides on it. */
  tellOfCourses: z.boolean().default(true),
  /** How what they did not read here reaches them by mail, where mail is sent. */
  byMail: z.enum(mailWords).default('daily'),
})
export type Preferences = z.output<typeof Preferences>

export const Account = z.strictObject({
  name: z.string(),
  email: z.string(),
  /** Whether they sign in here with a password. */
  hasPassword: z.boolean(),
  preferences: Preferences,
  /** Whether this installation sends mail. */
  sendsMail: z.boolean(),
  sessions: z.array(
    z.strictObject({
      id: z.string(),
      beganAt: z.string(),
      seenAt: z.string(),
      /** The one this is asked in. */
      isThis: z.boolean(),
    }),
  ),
})
export type Account = z.output<typeof Account>

export const accountRoutes = {
  readLink: {
    method: 'post',
    path: '/api/links/read',
    summary: 'For whom a one-time link is, and until when',
    may: 'anyone',
    body: z.strictObject({ token: LinkToken }),
    answer: z.strictObject({
      email: z.string(),
      name: z.string(),
      purpose: z.enum(['invitation', 'reset']),
      until: z.string(),
    }),
    limits: { bytes: 2 * 2 ** 10, values: 10 },
  },
  useLink: {
    method: 'post',
    path: '/api/links/use',
    summary: 'Set a password by a one-time link, which ends with it, and sign in',
    may: 'anyone',
    body: z.strictObject({ token: LinkToken, password: NewPassword }),
    answer: Me,
    limits: { bytes: 2 * 2 ** 10, values: 10 },
  },
  askForAccount: {
    method: 'post',
    path: '/api/account-requests',
    summary: 'Ask for an account; the answer does not tell whether there is one',
    may: 'anyone',
    body: z.strictObject({ email: Email, name: PersonName, words: z.string().trim().max(2000) }),
    answer: Done,
    limits: { bytes: 8 * 2 ** 10, values: 10 },
  },
  readAccount: {
    method: 'get',
    path: '/api/account',
    summary: 'One’s own account: name, sessions, what one chose',
    may: 'use account',
    answer: Account,
  },
  keptAboutMe: {
    method: 'get',
    path: '/api/account/kept',
    summary: 'What is kept about oneself, as a file',
    may: 'use account',
    answer: z.record(z.string(), z.unknown()),
  },
  changeAccount: {
    method: 'post',
    path: '/api/account',
    summary: 'Change one’s own name and what one chose',
    may: 'use account',
    body: z.strictObject({ name: PersonName, preferences: Preferences }),
    answer: Account,
  },
  endSession: {
    method: 'post',
    path: '/api/account/sessions/:session/end',
    summary: 'End one of one’s own sessions, by its id',
    may: 'use account',
    answer: Done,
  },
} as const satisfies Routes
