import type { Change } from '../../course/index.ts'
import type { CheckContext } from '../context.ts'
import type { Subject } from '../subject.ts'

/** Sets the due date that the template wants. */
export const dueAsWanted = (subject: Subject, context: CheckContext): Change[] => {
  const there = subject.about === 'part' ? context.itemFor(subject.part) : null
  return there?.part.dueAt
    ? [{ change: 'set-item', id: there.item.id, fields: { dueAt: there.part.dueAt } }]
    : []
}
