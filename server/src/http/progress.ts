import type { Progress } from '@wickerframe/contract'
import { hasAnswered, type Situation } from './handler.ts'
import { HttpProblem } from './problem.ts'

export const lineByLine = 'application/x-ndjson'
const betweenMilliseconds = 100

/**
 * Work that says how far it is to whoever asks for it line by line (`Accept: application/x-ndjson`): a line of JSON for each
 * progress, and a last one with the answer or the problem. Others get the answer alone.
 * @returns what the handler answers
 */
export const withProgress = async <T>(
  { request, response }: Pick<Situation, 'request' | 'response'>,
  work: (tell: (progress: Progress) => void) => Promise<T>,
): Promise<T | typeof hasAnswered> => {
  if (request.get('accept') !== lineByLine) return work(() => undefined)
  response.status(200).type(lineByLine)
  const line = (said: object) => void response.write(`${JSON.stringify(said)}\n`)
  let told = 0
  try {
    const answer = await work((progress) => {
      if (performance.now() - told < betweenMilliseconds) return
      told = performance.now()
      line({ progress })
    })
    line({ answer })
  } catch (cause) {
    line({
      problem:
        cause instanceof HttpProblem
          ? cause.body
          : new HttpProblem(500, 'failed', 'something failed on our side; nothing was changed')
              .body,
    })
    if (!(cause instanceof HttpProblem)) throw cause
  } finally {
    response.end()
  }
  return hasAnswered
}
