import { useEffect, useState } from 'react'
import type { Template } from '@wickerframe/core'
import type { FirstCourse, FirstCourseNews } from './firstCourse.ts'
import firstCourseWorker from './firstCourse.worker.ts?shared-worker-url'

const restMilliseconds = 1000
const nothingYet: FirstCourse = { remarks: [], kinds: 0, state: 'reading' }

/**
 * Proofreads a draft as the first course would: a moment after the last edit, in a worker that is ended where the draft changes
 * meanwhile. @param wanted nothing is read where nobody looks
 */
export const useFirstCourse = (template: Template, wanted: boolean): FirstCourse => {
  const [known, setKnown] = useState({ of: template, first: nothingYet })
  useEffect(() => {
    if (!wanted) return
    let worker: Worker | null = null
    const timer = setTimeout(() => {
      worker = new Worker(firstCourseWorker, { type: 'module' })
      const failed = () =>
        setKnown(({ first }) => ({ of: template, first: { ...first, state: 'failed' } }))
      worker.addEventListener('error', failed)
      worker.addEventListener('message', ({ data }: MessageEvent<FirstCourseNews>) =>
        setKnown((before) => {
          const first = before.of === template ? before.first : nothingYet
          return {
            of: template,
            first: {
              remarks: [...first.remarks, ...data.remarks],
              kinds: first.kinds + (data.isLast ? 0 : 1),
              state: data.isLast ? 'read' : 'reading',
            },
          }
        }),
      )
      setKnown({ of: template, first: nothingYet })
      worker.postMessage({ template })
    }, restMilliseconds)
    return () => {
      clearTimeout(timer)
      worker?.terminate()
    }
  }, [template, wanted])
  return known.of === template ? known.first : nothingYet
}
