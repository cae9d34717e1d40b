import { z } from 'zod'

const Settings = z.object({
  WICKERFRAME_PORT: z.coerce.number().int().min(0).max(65535).default(4310),
  WICKERFRAME_HOST: z.string().default('127.0.0.1'),
  WICKERFRAME_PUBLIC_URL: z
    .url()
    .default('http://127.0.0.1:4310')
    .describe('Where students reach Wickerframe: linked house texts lead there'),
  WICKERFRAME_DATABASE: z
    .string()
    .regex(/^[\w-]+$/)
    .default('wickerframe'),
  DATABASE_HOST: z.string().default('127.0.0.1'),
  DATABASE_PORT: z.coerce.number().int().min(1).max(65535),
  DATABASE_USER: z.string().default('root'),
  DATABASE_PASSWORD: z.string().default(''),
  PLATFORM_URL: z.url(),
  PLATFORM_TOKEN: z.string().min(16, 'at least 16 characters'),
  WICKERFRAME_TODAY: z.iso
    .date()
    .optional()
    .describe('A fixed today, for demonstrations; the real one without it'),
  WICKERFRAME_SECURE_COOKIES: z
    .enum(['yes', 'no'])
    .default('no')
    .describe('yes when served over TLS'),
  WORKER_LEASE_SECONDS: z.coerce.number().int().min(2).max(600).default(30),
  WORKER_CONCURRENCY: z.coerce.number().int().min(1).max(32).default(4),
  WORKER_THREADS: z.coerce
    .number()
    .int()
    .min(1)
    .max(32)
    .default(2)
    .describe('Threads that check courses'),
  CONNECTOR_TIMEOUT_SECONDS: z.coerce.number().int().min(1).max(300).default(20),
})
export type Settings = z.output<typeof Settings>

/** Settings from the environment. @throws Error that names each wrong one */
export const readSettings = (environment: NodeJS.ProcessEnv): Settings => {
  const read = Settings.safeParse(environment)
  if (!read.success)
    throw new Error(
      `settings: ${read.error.issues.map((issue) => `${issue.path.join('.')}: ${issue.message}`).join('; ')}`,
    )
  return read.data
}

export const databaseAddress = (settings: Settings) => ({
  host: settings.DATABASE_HOST,
  port: settings.DATABASE_PORT,
  user: settings.DATABASE_USER,
  password: settings.DATABASE_PASSWORD,
  database: settings.WICKERFRAME_DATABASE,
})

/** The one clock: the demo's today, or the date in UTC. */
export const todayOf = (settings: Pick<Settings, 'WICKERFRAME_TODAY'>): string =>
  settings.WICKERFRAME_TODAY ?? new Date().toISOString().slice(0, 10)
