import { z } from 'zod'
import { Key } from '../words.ts'

export const At = z.number().int().min(0).max(2000)
export const Parent = Key.nullable().describe(
  'Key of the module it stands in, or of the exception that adds it; null for the top',
)
