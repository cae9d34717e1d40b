import {
  everyCourseItem,
  everyModule,
  readDocument,
  type Change,
  type Course,
} from '@wickerframe/core'
import { ProposedRename } from '@wickerframe/contract'
import { z } from 'zod'
import { recordAudit } from '../audit/audit.ts'
import type { Job } from '../queue/job.ts'
import { nothingReady, runChangeSetTask, type Ready } from '../rollouts/changeSetTask.ts'
import { failed, type TaskOutcome } from '../queue/outcome.ts'

const Note = z.strictObject({ renamed: z.array(ProposedRename), left: z.number().int() })

/** What bears the name of a rename now; null when it is gone. */
const nameNow = (course: Course, { what, id }: ProposedRename): string | null => {
  if (what === 'course') return course.name
  if (what === 'module')
    return everyModule(course.modules).find((module) => module.id === id)?.name ?? null
  return everyCourseItem(course).find(({ item }) => item.id === id)?.item.name ?? null
}

const changeFor = ({ what, id, name }: ProposedRename): Change =>
  what === 'course'
    ? { change: 'set-course', name }
    : what === 'module'
      ? { change: 'set-module', id, fields: { name } }
      : { change: 'set-item', id, fields: { name } }

const leftWords = (left: number): string =>
  left === 0 ? '' : `; ${left} left as they are, as somebody changed or removed them meanwhile`

/** Gives the approved names to what still bears the names they were approved for; what was renamed since is left alone. */
export const runRenameTask = async (job: Job): Promise<TaskOutcome> => {
  const { task } = job
  const proposal = readDocument(z.array(ProposedRename), JSON.parse(task.proposal ?? 'null'))
  if (!proposal.ok) return failed('the names to give are stored in a form that cannot be read')
  return runChangeSetTask<z.output<typeof Note>, Ready>(job, {
    note: Note,
    plan: async (_, course) => {
      const renamed = proposal.value.filter((rename) => nameNow(course, rename) === rename.was)
      const there = proposal.value.filter(
        (rename) => nameNow(course, rename) === rename.name,
      ).length
      const left = proposal.value.length - renamed.length - there
      return renamed.length === 0
        ? { nothing: `nothing to rename${leftWords(left)}` }
        : { changes: renamed.map(changeFor), note: { renamed, left } }
    },
    ready: async () => nothingReady,
    keep: async (database, _key, { renamed }) => {
      await recordAudit(database, {
        who: task.by,
        what: 'renamed',
        subject: `course ${task.courseId}`,
        from: renamed.map(({ was }) => was),
        to: { run: task.runId, names: renamed.map(({ name }) => name) },
      })
    },
    done: ({ renamed, left }) =>
      `${renamed.length} ${renamed.length === 1 ? 'name' : 'names'} given${leftWords(left)}`,
  })
}
