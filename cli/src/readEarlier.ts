import { CheckResult } from '@wickerframe/core'
import { ReportDocument } from '@wickerframe/interchange/report'
import { z } from 'zod'
import type { Streams } from './command.ts'
import { orUnusable } from './given.ts'
import { readJsonFile } from './readJsonFile.ts'

/** What an earlier check printed as JSON, of one course or of many. @throws Unusable */
export const readEarlier = async (
  file: string,
  streams: Pick<Streams, 'input'>,
): Promise<CheckResult[]> => {
  const earlier = orUnusable(
    file,
    await readJsonFile(
      file,
      z.discriminatedUnion('schema', [CheckResult, ReportDocument]),
      streams,
    ),
  )
  return 'courses' in earlier ? earlier.courses : [earlier]
}
