import {
  readModel,
  templateFromModel,
  type Course,
  type Facts,
  type ModelReading,
  type ModelTemplate,
  type Problem,
  type Result,
} from '@wickerframe/core'

export interface ModelAsk {
  job: number
  course: Course
  facts: Facts
  key: string
  title: string
  refused: string[]
}
export interface ModelTell {
  job: number
  made: Result<ModelTemplate, Problem[]>
}

let last: { course: string; reading: ModelReading } | null = null

/** Reads a model course once, and makes its template anew with every refusal. */
self.addEventListener('message', ({ data }: MessageEvent<ModelAsk>) => {
  const id = `${data.course.id} ${data.course.revision} ${data.course.readAt}`
  if (last?.course !== id) last = { course: id, reading: readModel(data.course, data.facts) }
  self.postMessage({
    job: data.job,
    made: templateFromModel(
      last.reading,
      { key: data.key, title: data.title },
      new Set(data.refused),
    ),
  } satisfies ModelTell)
})
