import express, { Router, type Request, type Response } from 'express'
import type { Pool } from 'mysql2/promise'
import { randomUUID } from 'node:crypto'
import { pipeline } from 'node:stream/promises'
import { z } from 'zod'
import {
  everyCourseItem,
  fileKinds,
  instantOf,
  kindOfFileName,
  mostFileBytes,
  type Change,
  type Course,
  type ShownFile,
} from '@wickerframe/core'
import { contentPieces } from '@wickerframe/storage'
import { fileAddress, fileIn, uploaded } from './files.ts'
import type { Courses } from './courses.ts'
import { isMisbehaviour, misbehaviours as known, type Misbehaviours } from './misbehave.ts'
import {
  changedMeanwhileScreen,
  courseScreen,
  coursesScreen,
  itemScreen,
  removeScreen,
} from './screens/coursePage.ts'
import { questionsEdited } from './questionsEdited.ts'
import { escape, page } from './screens/layout.ts'
import { withParagraphs, type ParagraphEdit } from './screens/paragraphs.ts'

const refusedScreen = (response: Response, status: number, detail: string): void =>
  void response
    .status(status)
    .send(page('Refused', `<h1>That could not be done</h1><p>${escape(detail)}</p>`))

/** What the buttons that show and hide something set. */
const fieldsOfShowing: Readonly<Record<string, { published: boolean } | { staffOnly: boolean }>> = {
  publish: { published: true },
  hide: { published: false },
  'for-staff': { staffOnly: true },
  'for-students': { staffOnly: false },
}

/** The practice platform's own pages and the small editor in which one plays instructor. Forms only; no script. */
export const screenRoutes = (
  courses: Courses,
  misbehaviours: Misbehaviours,
  pool: Pool,
): Router => {
  const router = Router()
  // Forms are taken from the platform's own pages only.
  router.use((request: Request, response: Response, next) => {
    const origin = request.get('origin')
    if (
      request.method === 'POST' &&
      origin !== undefined &&
      origin !== 'null' &&
      (!URL.canParse(origin) || new URL(origin).host !== request.get('host'))
    )
      return refusedScreen(response, 403, 'The form came from another site.')
    next()
  })
  router.use(express.urlencoded({ extended: false, limit: '2mb', parameterLimit: 12_000 }))

  const withCourse = async (
    response: Response,
    id: string | undefined,
    show: (course: Course) => string | null,
  ): Promise<void> => {
    const course = await courses.snapshot(id ?? '')
    const html = course && show(course)
    if (html) response.send(html)
    else refusedScreen(response, 404, 'There is no such page here.')
  }
  router.get('/', async (_, response) => {
    const list = await courses.list(0, 20_000)
    response.send(
      coursesScreen(list.courses.toSorted((a, b) => a.name.localeCompare(b.name, 'en'))),
    )
  })
  router.get('/courses/:id', (request, response) =>
    withCourse(response, request.params.id, courseScreen),
  )
  router.get('/courses/:id/items/:item', (request, response) =>
    withCourse(response, request.params.id, (course) => {
      const placed = everyCourseItem(course).find(({ item }) => item.id === request.params.item)
      return placed ? itemScreen(course, placed.item, placed.module) : null
    }),
  )
  router.get('/courses/:id/items/:item/remove', (request, response) =>
    withCourse(response, request.params.id, (course) => {
      const placed = everyCourseItem(course).find(({ item }) => item.id === request.params.item)
      return placed ? removeScreen(course, placed.item) : null
    }),
  )
  router.get('/courses/:id/modules/:module', (request, response) =>
    response.redirect(
      `/courses/${encodeURIComponent(request.params.id)}#${encodeURIComponent(request.params.module)}`,
    ),
  )

  router.get('/courses/:id/files/:content/:name', async (request, response) => {
    const { id, content } = request.params
    const course = await courses.snapshot(id)
    const file = course && fileIn(course, content)
    const kind = file && kindOfFileName(file.name)
    const pieces = kind ? await contentPieces(pool, content) : null
    if (!file || !kind || !pieces)
      return refusedScreen(response, 404, 'There is no such file here.')
    response
      .attachment(file.name)
      .type(fileKinds[kind].mediaType)
      .set('Content-Security-Policy', "sandbox; default-src 'none'")
    await pipeline(pieces, response)
  })
  /** The file of a form; what is wrong with it is shown. */
  const taken = async (request: Request, response: Response): Promise<ShownFile | null> => {
    if (!request.is('multipart/form-data')) {
      refusedScreen(response, 400, 'A file is wanted.')
      return null
    }
    const outcome = await uploaded(pool, request, mostFileBytes)
    if ('file' in outcome) return outcome.file
    refusedScreen(response, 400, outcome.refused)
    return null
  }

  const edit = async (
    response: Response,
    id: string,
    changes: Change[],
    back: string,
  ): Promise<void> => {
    const outcome = await courses.edit(id, changes, await misbehaviours.dropped())
    if ('refused' in outcome)
      refusedScreen(response, outcome.refused.status, outcome.refused.detail)
    else response.redirect(303, back)
  }
  const Name = z.string().trim().min(1).max(2000)
  const nameIn = (body: unknown): string | null => {
    const read = z.object({ name: Name }).safeParse(body)
    return read.success ? read.data.name : null
  }
  const placeIn = (body: unknown): number | null => {
    const read = z.object({ at: z.coerce.number().int().min(0).max(5000) }).safeParse(body)
    return read.success ? read.data.at : null
  }

  /** What a page's form holds: for each paragraph what it said and what it shall say, and what comes at the end. */
  const textIn = (body: unknown): { edits: ParagraphEdit[]; added: string } | null => {
    const Text = z.string().max(100_000)
    const form = z
      .object({ paragraphs: z.coerce.number().int().min(0).max(5000), added: Text })
      .loose()
      .safeParse(body)
    if (!form.success) return null
    const edits = z
      .array(z.object({ index: z.number(), was: Text, text: Text }))
      .safeParse(
        Array.from({ length: form.data.paragraphs }, (_, index) => ({
          index,
          was: form.data[`was-${index}`],
          text: form.data[`text-${index}`],
        })),
      )
    return edits.success ? { edits: edits.data, added: form.data.added } : null
  }

  router.post('/courses/:id/:action', async (request, response) => {
    const { id, action } = request.params
    const back = `/courses/${id}`
    if (action === 'put-file') {
      const file = await taken(request, response)
      if (!file) return
      const fresh = {
        ...file,
        id: `f-${randomUUID()}`,
        url: fileAddress(id, file),
        restricted: false,
      }
      await courses.changeFiles(id, (files) => [...files, fresh])
      return response.redirect(303, `${back}#files`)
    }
    if (action === 'publish' || action === 'hide')
      return edit(response, id, [{ change: 'set-course', published: action === 'publish' }], back)
    const name = nameIn(request.body)
    if (action === 'rename' && name)
      return edit(response, id, [{ change: 'set-course', name }], back)
    refusedScreen(response, 400, 'A name is wanted.')
  })
  router.post('/courses/:id/files/:file/:action', async (request, response) => {
    const { id, file, action } = request.params
    await courses.changeFiles(id, (files) =>
      files.flatMap((one) =>
        one.id !== file
          ? [one]
          : action === 'remove'
            ? []
            : [{ ...one, restricted: action === 'keep' }],
      ),
    )
    response.redirect(303, `/courses/${id}#files`)
  })
  router.post('/courses/:id/modules/:module/:action', async (request, response) => {
    const { id, module, action } = request.params
    const back = `/courses/${id}#${module}`
    const name = nameIn(request.body)
    const shows = fieldsOfShowing[action]
    if (shows)
      return edit(response, id, [{ change: 'set-module', id: module, fields: shows }], back)
    if (action === 'rename' && name)
      return edit(response, id, [{ change: 'set-module', id: module, fields: { name } }], back)
    const added =
      action === 'add'
        ? ({ kind: 'page', more: { html: '<p>New page</p>' } } as const)
        : action === 'add-file'
          ? ({ kind: 'file', more: {} } as const)
          : null
    if (added && name)
      return edit(
        response,
        id,
        [
          {
            change: 'create-item',
            clientId: 'new',
            module,
            at: null,
            kind: added.kind,
            fields: { name, ...added.more },
          },
        ],
        back,
      )
    const at = placeIn(request.body)
    if (action === 'move' && at !== null)
      return edit(response, id, [{ change: 'move-module', id: module, at }], back)
    refusedScreen(response, 400, 'A name or a place is wanted.')
  })
  router.post('/courses/:id/items/:item/:action', async (request, response) => {
    const { id, item, action } = request.params
    const back = `/courses/${id}/items/${item}`
    const course = await courses.snapshot(id)
    const placed = course && everyCourseItem(course).find((placed) => placed.item.id === item)
    if (!placed) return refusedScreen(response, 404, 'There is no such item.')
    const moduleId = placed.module?.id ?? null
    const name = nameIn(request.body)
    const shows = fieldsOfShowing[action]
    if (shows) return edit(response, id, [{ change: 'set-item', id: item, fields: shows }], back)
    switch (action) {
      case 'rename':
        return name
          ? edit(response, id, [{ change: 'set-item', id: item, fields: { name } }], back)
          : refusedScreen(response, 400, 'A name is wanted.')
      case 'duplicate':
        return edit(
          response,
          id,
          [{ change: 'duplicate-item', id: item, clientId: 'copy' }],
          `/courses/${id}`,
        )
      case 'remove':
        return edit(response, id, [{ change: 'remove-item', id: item }], `/courses/${id}`)
      case 'hand-in':
        await courses.handIn(id, item)
        return response.redirect(303, back)
      case 'move': {
        const at = placeIn(request.body)
        return at === null
          ? refusedScreen(response, 400, 'A place is wanted.')
          : edit(response, id, [{ change: 'move-item', id: item, module: moduleId, at }], back)
      }
      case 'due': {
        const read = z
          .object({ due: z.union([z.literal(''), z.iso.date()]) })
          .safeParse(request.body)
        if (!read.success) return refusedScreen(response, 400, 'A date is wanted, or nothing.')
        const dueAt =
          read.data.due === '' ? null : instantOf(read.data.due, '23:59', course?.timeZone ?? 'UTC')
        return edit(response, id, [{ change: 'set-item', id: item, fields: { dueAt } }], back)
      }
      case 'put-file': {
        const file = await taken(request, response)
        if (!file) return
        return edit(response, id, [{ change: 'set-item', id: item, fields: { file } }], back)
      }
      case 'remove-file':
        return edit(response, id, [{ change: 'set-item', id: item, fields: { file: null } }], back)
      case 'add-questions':
      case 'word-question':
      case 'remove-question': {
        const questions = questionsEdited(placed.item.questions ?? [], action, request.body)
        return questions
          ? edit(response, id, [{ change: 'set-item', id: item, fields: { questions } }], back)
          : refusedScreen(
              response,
              400,
              'A list of questions, or a question and its words, is wanted. Go back: what you typed is still there.',
            )
      }
      case 'text': {
        const typed = textIn(request.body)
        if (!typed)
          return refusedScreen(
            response,
            400,
            'A text for every paragraph is wanted. Go back: what you typed is still there.',
          )
        const outcome = withParagraphs(placed.item.html ?? '', typed.edits, typed.added)
        if ('changedMeanwhile' in outcome)
          return void response.status(409).send(
            changedMeanwhileScreen(
              back,
              typed.edits.filter((edit) => outcome.changedMeanwhile.includes(edit.index)),
            ),
          )
        return edit(
          response,
          id,
          [{ change: 'set-item', id: item, fields: { html: outcome.html } }],
          back,
        )
      }
      default:
        refusedScreen(response, 404, 'There is no such action.')
    }
  })

  router.get('/misbehaviours', async (_, response) => {
    const set = await misbehaviours.all()
    response.send(
      page(
        'Misbehaviours',
        `<h1>Misbehaviours</h1><p>What real platforms do on bad days, so that one can see what Wickerframe does then.</p>${Object.entries(
          known,
        )
          .map(
            ([name, says]) =>
              `<form class="block" method="post" action="/misbehaviours"><input type="hidden" name="name" value="${name}"><label>${escape(says)} <input name="remaining" type="number" min="0" max="100000" value="${isMisbehaviour(name) ? set[name] : 0}"></label> <button>set</button></form>`,
          )
          .join('')}`,
      ),
    )
  })
  router.post('/misbehaviours', async (request, response) => {
    const read = z
      .object({ name: z.string(), remaining: z.coerce.number().int().min(0).max(100_000) })
      .safeParse(request.body)
    if (!read.success || !isMisbehaviour(read.data.name))
      return refusedScreen(
        response,
        400,
        'A misbehaviour and a number from 0 to 100000 are wanted.',
      )
    await misbehaviours.set(read.data.name, read.data.remaining)
    response.redirect(303, '/misbehaviours')
  })
  return router
}
