import { z } from 'zod'
import { Done, type Routes } from './asked.ts'

export const Message = z.strictObject({
  id: z.number(),
  run: z.number().nullable(),
  /** Key of the template it is about. */
  template: z.string().nullable(),
  course: z.number().nullable(),
  at: z.string(),
  subject: z.string(),
  body: z.string(),
  read: z.boolean(),
})
export type Message = z.output<typeof Message>

export const messageRoutes = {
  listMessages: {
    method: 'get',
    path: '/api/messages',
    summary: 'Messages to whoever is signed in',
    may: 'use account',
    answer: z.array(Message),
  },
  markMessageRead: {
    method: 'post',
    path: '/api/messages/:message/read',
    summary: 'Mark a message as read',
    may: 'use account',
    answer: Done,
  },
} as const satisfies Routes
