import { type ExpectedPart, gathered, wantedFields } from '../expand/index.ts'
import type { FieldBase } from './base.ts'
import type { Moves } from './mergePlace.ts'
import { listAt, placeAmong } from './places.ts'
import { recordOf, type PlanContext } from './planContext.ts'
import { wantedBlocks } from './wantedBlocks.ts'
import { questionClientId, writtenQuestion } from './wantedQuestions.ts'

/** Plans a part that is not in the course, in its place among what is. */
export const createPart = (
  part: ExpectedPart,
  reason: string,
  { yetToMove }: Moves,
  context: PlanContext,
): void => {
  const { expected, bodies, places, changes, next, refOf, siblingRefs, tell } = context
  const { definition } = part
  const fields = wantedFields(part, expected)
  const parent = part.parent === null ? null : refOf(part.parent)
  const self = `ref:${part.instance}`
  const list = places.idsIn(listAt(definition.kind, parent))
  const at = placeAmong(list, siblingRefs(part), self, yetToMove)
  list.splice(at ?? list.length, 0, self)
  const blocks = wantedBlocks(part, context)
  const { questions } = part
  if (definition.kind === 'module')
    changes.push({
      change: 'create-module',
      clientId: part.instance,
      parent,
      at,
      fields: fields as { name: string },
    })
  else
    changes.push({
      change: 'create-item',
      clientId: part.instance,
      module: parent,
      at,
      kind: definition.kind,
      fields: {
        ...(gathered(null, fields) as { name: string }),
        ...(blocks.length > 0 || definition.kind === 'page'
          ? { html: blocks.map((block) => block.written).join('\n') }
          : {}),
        ...(questions.length > 0
          ? {
              questions: {
                order: questions.map(({ key, body }) => ({
                  clientId: questionClientId(part, key),
                  body: writtenQuestion(body, context),
                })),
                remove: [],
              },
            }
          : {}),
      },
    })
  next.push({
    ...recordOf(part, expected),
    platformId: null,
    fields: Object.fromEntries(
      Object.entries(fields).map(([field, value]) => [
        field,
        { sent: (value ?? null) as FieldBase['sent'], echo: null },
      ]),
    ),
    freshFields: Object.keys(fields),
    blocks: blocks.map((block) => ({
      key: block.key,
      sent: bodies.idOf(block.kept),
      page: null,
      fresh: true,
    })),
    ...(questions.length > 0
      ? {
          questions: questions.map(({ key, body }) => ({
            key,
            id: '',
            clientId: questionClientId(part, key),
            sent: body,
            echo: body,
            fresh: true,
          })),
        }
      : {}),
    page: null,
    freshPage: true,
  })
  tell('create', part, reason)
}
