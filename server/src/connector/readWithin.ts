/** An answer that went on beyond what is read of one. */
export class AnswerTooLong extends Error {
  constructor(mostBytes: number) {
    super(`more than ${Math.round(mostBytes / 2 ** 20)} MB`)
  }
}

/**
 * The body of an answer as text, read piece by piece: what keeps coming is cut off at a number of bytes, and what stops
 * coming, or trickles, at the deadline; either way the connection is closed and what was read is let go.
 * @throws AnswerTooLong, or the signal's reason
 */
export const readWithin = async (
  response: Response,
  mostBytes: number,
  deadline: AbortSignal,
): Promise<string> => {
  const reader = response.body?.getReader()
  if (!reader) return ''
  let ended = () => {}
  const late = new Promise<never>((_, reject) => {
    ended = () => reject(deadline.reason)
    if (deadline.aborted) ended()
    else deadline.addEventListener('abort', ended)
  })
  try {
    if (Number(response.headers.get('content-length')) > mostBytes)
      throw new AnswerTooLong(mostBytes)
    const decoder = new TextDecoder('utf-8')
    let text = ''
    for (let bytes = 0; ;) {
      const piece = await Promise.race([reader.read(), late])
      if (piece.done) return text + decoder.decode()
      bytes += piece.value.byteLength
      if (bytes > mostBytes) throw new AnswerTooLong(mostBytes)
      text += decoder.decode(piece.value, { stream: true })
    }
  } catch (cause) {
    reader.cancel().catch(() => undefined)
    throw cause
  } finally {
    deadline.removeEventListener('abort', ended)
  }
}
