import { useEffect, useRef, useState } from 'react'
import type { Remark, Template } from '@wickerframe/core'

const restMilliseconds = 300

/** What proofreading says of the draft, a moment after the last edit; worked out in a worker. null until it was read once. */
export const useProofreading = (template: Template | null): readonly Remark[] | null => {
  const worker = useRef<Worker | null>(null)
  const job = useRef(0)
  const [remarks, setRemarks] = useState<readonly Remark[] | null>(null)
  useEffect(() => {
    const started = new Worker(new URL('./proofread.worker.ts', import.meta.url), { type: 'module' })
    started.onmessage = ({ data }: MessageEvent<{ job: number; remarks: Remark[] }>) => data.job === job.current && setRemarks(data.remarks)
    worker.current = started
    return () => {
      worker.current = null
      started.terminate()
    }
  }, [])
  useEffect(() => {
    if (!template) return
    const timer = setTimeout(() => {
      job.current += 1
      worker.current?.postMessage({ job: job.current, template })
    }, restMilliseconds)
    return () => clearTimeout(timer)
  }, [template])
  return remarks
}
