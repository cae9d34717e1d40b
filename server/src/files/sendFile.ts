import { pipeline } from 'node:stream/promises'
import type { Response } from 'express'
import { fileKinds, kindOfFileName } from '@wickerframe/core'

/** Answers with a file to be saved, piece by piece: nothing in it runs, or is shown as a page of ours. */
export const sendFile = async (
  response: Response,
  name: string,
  pieces: AsyncIterable<Uint8Array>,
): Promise<void> => {
  const kind = kindOfFileName(name)
  response
    .attachment(name)
    .type(kind === null ? 'application/octet-stream' : fileKinds[kind].mediaType)
    .set('Content-Security-Policy', "sandbox; default-src 'none'")
  await pipeline(pieces, response)
}
