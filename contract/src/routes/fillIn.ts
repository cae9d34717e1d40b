import { z } from 'zod'
import { Answer, AskingPage } from '@wickerframe/core'
import { streamed } from '../route.ts'
import { Begun, large, type Routes } from './asked.ts'
import { KeptFile } from './files.ts'

/** What the pages of a course still ask of its instructor. */
export const AskedOfCourse = z.strictObject({
  pages: z.array(AskingPage),
  unread: z
    .array(z.string())
    .describe('Names of pages that cannot be read, so that it is not known whether they ask'),
  notChecked: z
    .enum(['no-template', 'never-read'])
    .nullable()
    .describe('Why it is not known what is asked'),
})
export type AskedOfCourse = z.output<typeof AskedOfCourse>

/** A file that can be given as an answer now. */
export const AnswerFile = KeptFile.pick({ fileName: true, content: true, bytes: true })
export type AnswerFile = z.output<typeof AnswerFile>

export const fillInRoutes = {
  askedOfCourse: {
    method: 'get',
    path: '/api/courses/:course/asked',
    summary: 'What the pages of a course still ask of its instructor, as it was read last',
    may: 'look after course',
    answer: AskedOfCourse,
  },
  putAnswerFile: {
    method: 'post',
    path: '/api/courses/:course/answer-files',
    summary:
      'Keep the bytes of a file that is an answer, once they are seen to be what its name says',
    may: 'look after course',
    query: z.strictObject({ name: z.string().min(1).max(500) }),
    body: streamed,
    answer: AnswerFile,
  },
  answerCourse: {
    method: 'post',
    path: '/api/courses/:course/answers',
    summary: 'Write answers into the pages of one course, each in place of what asks for it',
    may: 'look after course',
    body: z.strictObject({ answers: z.array(Answer).min(1).max(500) }),
    answer: Begun,
    limits: large,
  },
} as const satisfies Routes
