/** An answer that went on beyond what is read of one. */
export class AnswerTooLong extends Error {
  constructor(mostBytes: number) {
    super(`more than ${Math.round(mostBytes / 2 ** 20)} MB`)
  }
}

/**
 * The bytes of an answer, read piece by piece: what keeps coming is cut off at a number of bytes, and what stops
 * coming, or trickles, at the deadline; either way the connection is closed and what was read is let go.
 * @throws AnswerTooLong, or the signal's reason
 */
export const bytesWithin = async (
  response: Response,
  mostBytes: number,
  deadline: AbortSignal,
): Promise<Buffer> => {
  const reader = response.body?.getReader()
  if (!reader) return Buffer.alloc(0)
  let ended = () => {}
  const late = new Promise<never>((_, reject) => {
    ended = () => reject(deadline.reason)
    if (deadline.aborted) ended()
    else deadline.addEventListener('abort', ended)
  })
  try {
    if (Number(response.headers.get('content-length')) > mostBytes)
      throw new AnswerTooLong(mostBytes)
    const pieces: Uint8Array[] = []
    for (let bytes = 0; ;) {
      const piece = await Promise.race([reader.read(), late])
      if (piece.done) return Buffer.concat(pieces)
      bytes += piece.value.byteLength
      if (bytes > mostBytes) throw new AnswerTooLong(mostBytes)
      pieces.push(piece.value)
    }
  } catch (cause) {
    reader.cancel().catch(() => undefined)
    throw cause
  } finally {
    deadline.removeEventListener('abort', ended)
  }
}

/** The body of an answer as text, in UTF-8, within the same limits. */
export const readWithin = async (
  response: Response,
  mostBytes: number,
  deadline: AbortSignal,
): Promise<string> =>
  new TextDecoder('utf-8').decode(await bytesWithin(response, mostBytes, deadline))
