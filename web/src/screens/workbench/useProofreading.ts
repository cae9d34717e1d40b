import { useEffect, useRef, useState } from 'react'
import type { Remark, Template } from '@wickerframe/core'
import proofreadWorker from './proofread.worker.ts?shared-worker-url'

const restMilliseconds = 300

/** What proofreading says of the draft, a moment after the last edit; worked out in a worker. null until it was read once. */
export const useProofreading = (template: Template | null): readonly Remark[] | null => {
  const worker = useRef<Worker | null>(null)
  const job = useRef(0)
  const [remarks, setRemarks] = useState<readonly Remark[] | null>(null)
  useEffect(
    () => () => {
      worker.current?.terminate()
      worker.current = null
    },
    [],
  )
  useEffect(() => {
    if (!template) return
    const timer = setTimeout(() => {
      // The worker is fetched when there is something to read, after the outline stands.
      if (!worker.current) {
        worker.current = new Worker(proofreadWorker, { type: 'module' })
        worker.current.addEventListener(
          'message',
          ({ data }: MessageEvent<{ job: number; remarks: Remark[] }>) =>
            data.job === job.current && setRemarks(data.remarks),
        )
      }
      job.current += 1
      worker.current.postMessage({ job: job.current, template })
    }, restMilliseconds)
    return () => clearTimeout(timer)
  }, [template])
  return remarks
}
