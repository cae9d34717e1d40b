import { z } from 'zod'

const Settings = z.object({
  PLATFORM_PORT: z.coerce.number().int().min(0).max(65535).default(0),
  PLATFORM_TOKEN: z.string().min(16, 'at least 16 characters'),
  PLATFORM_DATABASE: z
    .string()
    .regex(/^[\w-]+$/)
    .default('wickerframe_platform'),
  DATABASE_PORT: z.coerce.number().int().min(1).max(65535),
  DATABASE_USER: z.string().default('root'),
  DATABASE_PASSWORD: z.string().default(''),
  INSTITUTION_CLOCK_OFFSET_SECONDS: z.coerce.number().int().default(0),
})

/** Settings from the environment. @throws Error that names each wrong one */
export const readSettings = (environment: NodeJS.ProcessEnv) => {
  const read = Settings.safeParse(environment)
  if (!read.success)
    throw new Error(
      `settings: ${read.error.issues.map((issue) => `${issue.path.join('.')}: ${issue.message}`).join('; ')}`,
    )
  return read.data
}
export type Settings = z.output<typeof Settings>
