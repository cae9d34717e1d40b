import { useEffect, useMemo, useRef, useState } from 'react'
import type { InferredFormat, NameContext } from '@wickerframe/core'
import type { Ask, Judged, ListedName, Tell } from './protocol.ts'
import namesWorker from './names.worker.ts?shared-worker-url'

export interface Progress {
  judged: readonly (Judged | undefined)[]
  count: number
  done: boolean
  /** Formats found in the list itself; null while they are looked for. */
  inferred: readonly InferredFormat[] | null
}

const none: readonly (Judged | undefined)[] = []
const showEveryMilliseconds = 90

interface Numbers {
  list: number
  job: number
}

/**
 * Judges a list by a format in a worker of its own. What is there is shown as it comes; a change of list, format or
 * context begins anew, and what came of the one before is not shown any more.
 * @param format a format without mistakes, or null
 */
export const useNameWorker = (
  names: readonly ListedName[],
  format: string | null,
  context: NameContext | null,
): Progress => {
  const worker = useRef<Worker | null>(null)
  const numbers = useRef<Numbers>({ list: 0, job: 0 })
  /** What is being judged; results are shown only with the very request they answer. */
  const request = useMemo(() => ({ names, format, context }), [names, format, context])
  const current = useRef(request)
  const [answer, setAnswer] = useState({ request, judged: none, count: 0, done: false })
  const [found, setFound] = useState<{
    names: readonly ListedName[]
    formats: readonly InferredFormat[]
  } | null>(null)

  useEffect(() => {
    const started = new Worker(namesWorker, { type: 'module' })
    let judged: (Judged | undefined)[] = []
    let shownAt = 0
    started.addEventListener('message', ({ data }: MessageEvent<Tell>) => {
      if (data.tell === 'inferred') {
        if (data.list === numbers.current.list)
          setFound({ names: current.current.names, formats: data.formats })
        return
      }
      if (data.job !== numbers.current.job) return
      if (data.from === 0) judged = Array.from({ length: current.current.names.length })
      for (const [i, one] of data.judged.entries()) judged[data.from + i] = one
      const now = performance.now()
      if (!data.done && now - shownAt < showEveryMilliseconds) return
      shownAt = now
      setAnswer({
        request: current.current,
        judged: [...judged],
        count: data.from + data.judged.length,
        done: data.done,
      })
    })
    worker.current = started
    return () => {
      worker.current = null
      started.terminate()
    }
  }, [])
  useEffect(() => {
    numbers.current.list += 1
    worker.current?.postMessage({ ask: 'list', list: numbers.current.list, names } satisfies Ask)
  }, [names])
  useEffect(() => {
    current.current = request
    numbers.current.job += 1
    const { format: wanted, context: at } = request
    if (wanted === null || at === null) return
    worker.current?.postMessage({
      ask: 'judge',
      job: numbers.current.job,
      list: numbers.current.list,
      format: wanted,
      places: at.places,
      near: at.near,
      classSections: at.classSections,
    } satisfies Ask)
  }, [request])

  const fresh = answer.request === request
  return {
    judged: fresh ? answer.judged : none,
    count: fresh ? answer.count : 0,
    done: fresh && answer.done,
    inferred: found?.names === names ? found.formats : null,
  }
}
