import type { fileRoutes } from '@wickerframe/contract'
import { kindOfFileName } from '@wickerframe/core'
import { contentPieces } from '@wickerframe/storage'
import { keepForGood } from '../fillIn/answerFiles.ts'
import { hasAnswered, type HandlersOf } from '../http/handler.ts'
import { notFound } from '../http/problem.ts'
import { keepHandout } from './keepHandout.ts'
import { sendFile } from './sendFile.ts'

export const fileHandlers: HandlersOf<typeof fileRoutes> = {
  putFile: async (handling) => {
    const { file } = await keepHandout(handling, handling.query.name)
    await keepForGood(handling.pool, [file.content])
    return file
  },
  getFile: async ({ pool, response, at, query }) => {
    const pieces = await contentPieces(pool, at.content)
    if (!pieces || kindOfFileName(query.name) === null) throw notFound('file')
    await sendFile(response, query.name, pieces)
    return hasAnswered
  },
}
