import { z } from 'zod'
import { roles, type CourseRole } from '../capabilities.ts'
import { leastPasswordLength } from '../password.ts'
import { Done, type Routes } from './asked.ts'

/** An e-mail address; letter case does not tell two apart. */
export const Email = z
  .string()
  .trim()
  .toLowerCase()
  .max(200)
  .refine((address) => z.email().safeParse(address).success, 'an e-mail address')
export const PersonName = z.string().trim().min(1).max(200)
export const NewPassword = z
  .string()
  .max(200)
  .refine(
    (password) => [...password].length >= leastPasswordLength,
    `at least ${leastPasswordLength} characters`,
  )
export const SignIn = z.strictObject({
  email: z.string().min(1).max(200),
  password: z.string().min(1).max(200),
})
export const SignOut = z.strictObject({
  everywhere: z.boolean().default(false).describe('All sessions of the person, on every device'),
})
export const ChangePassword = z.strictObject({
  was: z.string().min(1).max(200),
  password: NewPassword,
})
export const themes = ['as the device', 'light', 'dark'] as const
export const Me = z.strictObject({
  name: z.string(),
  email: z.string(),
  /** One or more. */
  roles: z.array(z.enum(roles)),
  /** That their roles of designer and reviewer are about; all where none is named. */
  departments: z.array(z.string()),
  today: z.string(),
  /** Which theme they chose. */
  theme: z.enum(themes),
})
export type Me = z.output<typeof Me>
/** The same as far as one course goes. */
export type MeInCourse = Omit<Me, 'roles'> & { roles: CourseRole[] }

export const sessionRoutes = {
  signIn: {
    method: 'post',
    path: '/api/sign-in',
    summary: 'Sign in with a local account',
    may: 'anyone',
    body: SignIn,
    answer: Me,
    limits: { bytes: 2 * 2 ** 10, values: 10 },
  },
  signOut: {
    method: 'post',
    path: '/api/sign-out',
    summary: 'End the session, or all sessions of the person',
    may: 'use account',
    body: SignOut,
    answer: Done,
  },
  changePassword: {
    method: 'post',
    path: '/api/password',
    summary: 'Change one’s own password; older sessions end',
    may: 'use account',
    body: ChangePassword,
    answer: Done,
  },
  whoAmI: {
    method: 'get',
    path: '/api/me',
    summary: 'Who is signed in, and the institution’s today',
    may: 'use account',
    answer: Me,
  },
} as const satisfies Routes
