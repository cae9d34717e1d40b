import { writeFile } from 'node:fs/promises'
import { Unusable } from './unusable.ts'

/** Writes a document, if a path was given. @throws Unusable when it cannot be written */
export const writeJsonFile = async (path: string | undefined, document: object): Promise<void> => {
  if (path === undefined) return
  await writeFile(path, `${JSON.stringify(document, null, 2)}\n`).catch((cause: unknown) => {
    throw new Unusable(
      `${path}: cannot be written (${cause instanceof Error && 'code' in cause ? String(cause.code) : 'error'})`,
    )
  })
}
