import { readFileSync } from 'node:fs'
import { isIP } from 'node:net'
import { z } from 'zod'
import { isRole, roles, type Role } from '@wickerframe/contract'
import { TimeZone } from '@wickerframe/core'
import type { DatabaseAddress } from '@wickerframe/storage'
import { institutionClock, type InstitutionClock } from './clocks.ts'

/** Whether a host is this very machine: only there may things go without TLS. */
const isLoopback = (host: string): boolean =>
  host === 'localhost' || host === '::1' || host === '[::1]' || /^127(\.\d+){3}$/.test(host)
const overTls = (url: string): boolean => {
  const { protocol, hostname } = new URL(url)
  return protocol === 'https:' || (protocol === 'http:' && isLoopback(hostname))
}
const yesOrNo = z.enum(['yes', 'no'], 'yes or no')
const days = z.coerce.number('a number of days').int().min(1).max(36_500).optional()

const Settings = z
  .object({
    WICKERFRAME_PORT: z.coerce.number().int().min(0).max(65535).default(4310),
    WICKERFRAME_HOST: z.string().min(1).default('127.0.0.1'),
    WICKERFRAME_PUBLIC_URL: z
      .url({
        protocol: /^https?$/,
        error:
          'the address at which people reach Wickerframe, such as https://templates.example.edu',
      })
      .describe('Links in courses lead there, for years: it is asked for, not guessed'),
    WICKERFRAME_DATABASE: z
      .string()
      .regex(/^[\w-]+$/, 'letters, digits, - and _')
      .default('wickerframe'),
    DATABASE_HOST: z.string().min(1).default('127.0.0.1'),
    DATABASE_PORT: z.coerce.number('the port at which MariaDB listens').int().min(1).max(65535),
    DATABASE_USER: z.string().min(1).default('root'),
    DATABASE_PASSWORD: z.string().default(''),
    DATABASE_TLS: yesOrNo
      .optional()
      .describe(
        'yes unless the database is on this machine; its certificate is held against its name',
      ),
    DATABASE_CA_FILE: z
      .string()
      .optional()
      .describe('Certificates (PEM) that sign the database’s, where the system does not know them'),
    PLATFORM_URL: z
      .url({ protocol: /^https?$/, error: 'the address of the learning platform’s connector' })
      .refine(overTls, 'https, unless the platform is on this machine'),
    PLATFORM_TOKEN: z
      .string('the token that the platform’s connector asks for')
      .min(16, 'at least 16 characters'),
    PLATFORM_FOLLOW_SECONDS: z.coerce
      .number()
      .int()
      .min(0)
      .max(3600)
      .default(4)
      .describe(
        'How often the platform is asked what changed, so that it is read and checked; 0: never',
      ),
    INSTITUTION_TIME_ZONE: TimeZone.default('UTC').describe(
      'Where the institution is: its today begins at midnight there',
    ),
    INSTITUTION_CLOCK_OFFSET_SECONDS: z.coerce
      .number()
      .int()
      .default(0)
      .describe('How far the institution’s clock is moved, for demonstrations'),
    WICKERFRAME_SECURE_COOKIES: yesOrNo
      .optional()
      .describe('yes unless people reach Wickerframe on this machine only'),
    WICKERFRAME_PROXIES: z.coerce
      .number()
      .int()
      .min(0)
      .max(10)
      .default(0)
      .describe('Proxies in front of the server, whose word is taken for the client’s address'),
    WICKERFRAME_HOLD_ANSWERS: yesOrNo
      .default('no')
      .describe(
        'Whether an answer that its route does not define fails: yes in tests and development',
      ),
    WORKER_LEASE_SECONDS: z.coerce.number().int().min(2).max(600).default(30),
    WORKER_CONCURRENCY: z.coerce.number().int().min(1).max(32).default(4),
    WORKER_THREADS: z.coerce
      .number()
      .int()
      .min(1)
      .max(32)
      .default(2)
      .describe('Threads that check courses'),
    LOCAL_ACCOUNTS: yesOrNo
      .default('yes')
      .describe('Whether people may sign in with a password that is kept here'),
    OIDC_ISSUER: z
      .url({ protocol: /^https?$/, error: 'the address of the identity provider' })
      .refine(overTls, 'https, unless the identity provider is on this machine')
      .optional(),
    OIDC_CLIENT_ID: z.string().min(1).optional(),
    OIDC_CLIENT_SECRET: z.string().min(1).optional(),
    OIDC_NAME: z
      .string()
      .trim()
      .min(1)
      .max(60)
      .default('your institution')
      .describe('What people call it: they sign in “with …”'),
    OIDC_ROLES_CLAIM: z
      .string()
      .min(1)
      .default('groups')
      .describe('The claim that says what somebody is'),
    OIDC_ROLES: z
      .string()
      .default('')
      .describe('Which of its values give which role: `course-design=designer,faculty=instructor`')
      .transform((text, context): Readonly<Record<string, Role>> => {
        const given: Record<string, Role> = {}
        for (const pair of text.split(',').filter((part) => part.trim() !== '')) {
          const at = pair.lastIndexOf('=')
          const role = pair.slice(at + 1).trim()
          if (at > 0 && isRole(role)) given[pair.slice(0, at).trim()] = role
          else
            context.addIssue({
              code: 'custom',
              message: `“${pair.trim()}” is not VALUE=ROLE, with a role of ${roles.join(', ')}`,
            })
        }
        return given
      }),
    OIDC_TRUST_EMAIL: yesOrNo
      .default('no')
      .describe(
        'yes where the provider does not say that addresses are verified, but nobody can choose theirs',
      ),
    MAIL_SERVER: z
      .url({
        protocol: /^smtps?$/,
        error:
          'smtp://host:port or smtps://host:port, with user and password where it asks for them',
      })
      .optional()
      .describe('Where mail is handed over; without it people are told in the program only'),
    MAIL_FROM: z.email().optional().describe('From whom mail is'),
    KEEP_AUDIT_DAYS: days.describe('For how long who did what is kept; for ever without it'),
    KEEP_MESSAGES_DAYS: days.describe('For how long messages are kept'),
    KEEP_RESULTS_DAYS: days.describe(
      'For how long results of checks are kept; the latest of a course always is',
    ),
    KEEP_RUNS_DAYS: days.describe(
      'For how long runs that have ended are kept, with what failed in them; those that deployed something always are',
    ),
    KEEP_BODIES_DAYS: z.coerce
      .number()
      .int()
      .min(1)
      .max(36_500)
      .default(1)
      .describe('For how long page texts are kept that nothing names any more'),
    CONNECTOR_TIMEOUT_SECONDS: z.coerce.number().int().min(1).max(300).default(20),
  })
  .transform((given) => ({
    ...given,
    secureCookies:
      (given.WICKERFRAME_SECURE_COOKIES ??
        (isLoopback(new URL(given.WICKERFRAME_PUBLIC_URL).hostname) ? 'no' : 'yes')) === 'yes',
    outside:
      given.OIDC_ISSUER && given.OIDC_CLIENT_ID && given.OIDC_CLIENT_SECRET
        ? {
            issuer: given.OIDC_ISSUER,
            clientId: given.OIDC_CLIENT_ID,
            clientSecret: given.OIDC_CLIENT_SECRET,
            name: given.OIDC_NAME,
            rolesClaim: given.OIDC_ROLES_CLAIM,
            roleOf: given.OIDC_ROLES,
            trustEmail: given.OIDC_TRUST_EMAIL === 'yes',
          }
        : null,
    mail:
      given.MAIL_SERVER && given.MAIL_FROM
        ? {
            server: given.MAIL_SERVER,
            from: given.MAIL_FROM,
            loopback: isLoopback(new URL(given.MAIL_SERVER).hostname),
          }
        : null,
    keep: {
      audit: given.KEEP_AUDIT_DAYS ?? null,
      messages: given.KEEP_MESSAGES_DAYS ?? null,
      results: given.KEEP_RESULTS_DAYS ?? null,
      runs: given.KEEP_RUNS_DAYS ?? null,
      bodies: given.KEEP_BODIES_DAYS,
    },
    databaseTls: (given.DATABASE_TLS ?? (isLoopback(given.DATABASE_HOST) ? 'no' : 'yes')) === 'yes',
  }))
  .refine(
    ({ OIDC_ISSUER, OIDC_CLIENT_ID, OIDC_CLIENT_SECRET }) =>
      [OIDC_ISSUER, OIDC_CLIENT_ID, OIDC_CLIENT_SECRET].every((part) => part === undefined) ||
      [OIDC_ISSUER, OIDC_CLIENT_ID, OIDC_CLIENT_SECRET].every((part) => part !== undefined),
    {
      path: ['OIDC_ISSUER'],
      error: 'the identity provider needs OIDC_ISSUER, OIDC_CLIENT_ID and OIDC_CLIENT_SECRET',
    },
  )
  .refine(
    ({ MAIL_SERVER, MAIL_FROM }) => (MAIL_SERVER === undefined) === (MAIL_FROM === undefined),
    { path: ['MAIL_SERVER'], error: 'mail needs MAIL_SERVER and MAIL_FROM, or neither' },
  )
  .refine(({ LOCAL_ACCOUNTS, outside }) => LOCAL_ACCOUNTS === 'yes' || outside !== null, {
    path: ['LOCAL_ACCOUNTS'],
    error: 'yes, or an identity provider (OIDC_ISSUER): otherwise nobody can sign in',
  })
  // The driver holds a certificate against a name only; given an address it would compare with “localhost”.
  .refine(({ databaseTls, DATABASE_HOST }) => !databaseTls || isIP(DATABASE_HOST) === 0, {
    path: ['DATABASE_HOST'],
    error: 'a name that the database’s certificate has, not an address, since TLS is spoken',
  })
export type Settings = z.output<typeof Settings>

/** What cannot be started with, in sentences for whoever starts it. */
export class WrongSettings extends Error {}

/** Settings from the environment. @throws WrongSettings that names each wrong one */
export const readSettings = (environment: NodeJS.ProcessEnv): Settings => {
  const read = Settings.safeParse(environment)
  if (read.success) return read.data
  throw new WrongSettings(
    [
      'Wickerframe cannot start with these settings:',
      ...read.error.issues.map((issue) => {
        const name = issue.path.join('.')
        return environment[name] === undefined
          ? `  ${name} is not set: ${issue.message}`
          : `  ${name}: ${issue.message}`
      }),
    ].join('\n'),
  )
}

const certificatesIn = (file: string): string => {
  try {
    return readFileSync(file, 'utf8')
  } catch {
    throw new WrongSettings(`  DATABASE_CA_FILE: the file ${file} cannot be read`)
  }
}

export const databaseAddress = (settings: Settings): DatabaseAddress => ({
  host: settings.DATABASE_HOST,
  port: settings.DATABASE_PORT,
  user: settings.DATABASE_USER,
  password: settings.DATABASE_PASSWORD,
  database: settings.WICKERFRAME_DATABASE,
  institutionOffsetSeconds: settings.INSTITUTION_CLOCK_OFFSET_SECONDS,
  ...(settings.databaseTls
    ? {
        tls: {
          ca: settings.DATABASE_CA_FILE ? certificatesIn(settings.DATABASE_CA_FILE) : undefined,
        },
      }
    : {}),
})

export const clockOf = (settings: Settings): InstitutionClock =>
  institutionClock(settings.INSTITUTION_TIME_ZONE, settings.INSTITUTION_CLOCK_OFFSET_SECONDS)
