import { z } from 'zod'
import type { Routes } from './asked.ts'

export const healthRoutes = {
  health: {
    method: 'get',
    path: '/api/health',
    summary: 'Whether the server and its database answer',
    may: 'anyone',
    answer: z.strictObject({ database: z.literal(true) }),
  },
} as const satisfies Routes
