import { firstCourseRemarks, type Template } from '@wickerframe/core'
import type { FirstCourseNews } from './firstCourse.ts'

/** Proofreads the draft as the first course would, away from the typing; tells of each kind of course when it is known. */
self.addEventListener('message', ({ data }: MessageEvent<{ template: Template }>) => {
  for (const remarks of firstCourseRemarks(data.template))
    self.postMessage({ remarks, isLast: false } satisfies FirstCourseNews)
  self.postMessage({ remarks: [], isLast: true } satisfies FirstCourseNews)
})
