import type { messageRoutes } from '@wickerframe/contract'
import type { HandlersOf } from '../http/handler.ts'
import { listMessages, markRead } from './messages.ts'
import { notFound } from '../http/problem.ts'

export const messageHandlers: HandlersOf<typeof messageRoutes> = {
  listMessages: async ({ pool, person }) => listMessages(pool, person.email),
  markMessageRead: async ({ pool, person, at }) => {
    if (!(await markRead(pool, person.email, at.message))) throw notFound('message')
    return {}
  },
}
