import { z } from 'zod'
import { FileName, fileKinds, TemplateFile, type FileKind } from '@wickerframe/core'
import { bytes, streamed } from '../route.ts'
import type { Routes } from './asked.ts'

const kindNames = Object.keys(fileKinds) as [FileKind, ...FileKind[]]

/** A file that is kept now, with what was read of it; nothing shows it yet. */
export const KeptFile = TemplateFile.pick({
  fileName: true,
  content: true,
  bytes: true,
  fields: true,
  words: true,
}).extend({
  kind: z.enum(kindNames),
  notFields: z
    .array(z.string())
    .describe('What stands in braces like a naming field and is none; it stays as it stands'),
  unfillable: z.string().nullable().describe('Why its fields are not filled; null where they are'),
})
export type KeptFile = z.output<typeof KeptFile>

export const fileRoutes = {
  putFile: {
    method: 'post',
    path: '/api/files',
    summary: 'Keep the bytes of a file, once they are seen to be what its name says',
    may: 'edit drafts',
    query: z.strictObject({ name: z.string().min(1).max(500) }),
    body: streamed,
    answer: KeptFile,
  },
  getFile: {
    method: 'get',
    path: '/api/files/:content',
    summary: 'The bytes of a file, to be saved under a name',
    may: 'see college',
    query: z.strictObject({ name: FileName }),
    answer: bytes,
  },
} as const satisfies Routes
