import { proofread, type Template } from '@wickerframe/core'

/** Proofreads the draft away from the typing; answers with the number it was asked under. */
self.addEventListener('message', ({ data }: MessageEvent<{ job: number; template: Template }>) =>
  self.postMessage({ job: data.job, remarks: proofread(data.template) }),
)
