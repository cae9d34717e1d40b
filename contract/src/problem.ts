import type { Problem, Remark } from '@wickerframe/core'

/** Another's edit stands in the way: both values. */
export interface EditClash {
  code: 'clash'
  where: string
  present: unknown
  wanted: unknown
}
/** RFC 9457, with what the reader of a document found. */
export interface ApiProblem {
  type: string
  title: string
  status: number
  detail: string
  problems?: Problem[]
  clash?: EditClash
  /** Which of the edits that were sent was refused, from 0. */
  edit?: number
  remarks?: Remark[]
}
