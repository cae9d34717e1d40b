import { asSeen, mendCourse, readDocument, withRecordedIdentity } from '@wickerframe/core'
import { ChosenMend } from '@wickerframe/contract'
import { z } from 'zod'
import { recordAudit } from '../audit/audit.ts'
import { recordedIdentity } from '../rollouts/bases.ts'
import type { Job } from '../queue/job.ts'
import { nothingReady, runChangeSetTask, type Ready } from '../rollouts/changeSetTask.ts'
import { checkInputs } from '../checks/checkStored.ts'
import { failed, type TaskOutcome } from '../queue/outcome.ts'

/** What was chosen, with its sentence and what it changes, for those who read the run. */
export const ProposedMend = ChosenMend.extend({
  message: z.string().max(4000),
  changes: z.array(z.string()),
})
export type ProposedMend = z.output<typeof ProposedMend>
const Note = z.strictObject({ mended: z.array(z.string()), left: z.number().int() })

const leftWords = (left: number): string =>
  left === 0 ? '' : `; ${left} left as they are: mended already, or what was seen has changed since`

/**
 * Mends what was chosen in the course as it stands now. A mend is worked out anew; where something else is seen than
 * when it was chosen, it is left.
 */
export const runMendTask = async (job: Job): Promise<TaskOutcome> => {
  const { pool, task, today, checkCourse } = job
  const proposal = readDocument(z.array(ProposedMend), JSON.parse(task.proposal ?? 'null'))
  if (!proposal.ok) return failed('the mends are stored in a form that cannot be read')
  const chosen = new Map(proposal.value.map(({ fingerprint, digest }) => [fingerprint, digest]))
  const outcome = await runChangeSetTask<z.output<typeof Note>, Ready>(job, {
    note: Note,
    plan: async (stored, course) => {
      const inputs = await checkInputs(pool, stored, task.asOf ?? today, today)
      if (!inputs) return { nothing: 'it is under no template, so there is nothing to mend' }
      const present = withRecordedIdentity(course, await recordedIdentity(pool, task.courseId))
      const mended = mendCourse({ ...inputs, course: present }, asSeen(chosen))
      if (!mended.ok)
        return {
          outcome: failed(
            `it cannot be checked: at ${mended.problems[0]?.path}, found ${mended.problems[0]?.found}`,
          ),
        }
      const left = chosen.size - mended.value.mended.length
      return mended.value.changes.length === 0
        ? { nothing: `nothing to mend${leftWords(left)}` }
        : {
            changes: mended.value.changes,
            note: { mended: mended.value.mended.map(({ message }) => message), left },
          }
    },
    ready: async () => nothingReady,
    keep: async (database, _key, { mended }, _ready, changes) => {
      await recordAudit(database, {
        who: task.by,
        what: 'mended',
        subject: `course ${task.courseId}`,
        to: { run: task.runId, mended, changes: changes.length },
      })
    },
    done: ({ mended, left }) => `${mended.length} mended${leftWords(left)}`,
  })
  // The course was read again with the answer; what is told of it follows at once.
  if (outcome.state === 'done') await checkCourse(task.courseId, today, today)
  return outcome
}
