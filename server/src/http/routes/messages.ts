import { listMessages, markRead } from '../../repositories/messages.ts'
import { numberIn, type Handler } from '../handler.ts'
import { notFound } from '../problem.ts'

export const getMessages: Handler = async ({ pool, person }) => listMessages(pool, person.email)

export const postMessageRead: Handler = async ({ pool, person, request }) => {
  if (!(await markRead(pool, person.email, numberIn(request, 'message', 'message'))))
    throw notFound('message')
  return {}
}
