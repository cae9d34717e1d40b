import { z } from 'zod'
import { Answer, fillIn, readDocument, withRecordedIdentity } from '@wickerframe/core'
import { recordAudit } from '../audit/audit.ts'
import { checkInputs } from '../checks/checkStored.ts'
import { putAssets } from '../files/putAssets.ts'
import type { Job } from '../queue/job.ts'
import { failed, type TaskOutcome } from '../queue/outcome.ts'
import { recordedIdentity } from '../rollouts/bases.ts'
import { nothingReady, runChangeSetTask, type Ready } from '../rollouts/changeSetTask.ts'

const Note = z.strictObject({ written: z.number().int(), left: z.number().int() })

const leftWords = (left: number): string =>
  left === 0
    ? ''
    : `; ${left} not written: answered meanwhile, or its place cannot be told on the page`

/**
 * Writes answers into the course as it stands now, each in place of what asks for it. What is not asked any more is left, and so
 * is all else of a page: the words are the instructor’s from now on, and no base knows them.
 */
export const runAnswerTask = async (job: Job): Promise<TaskOutcome> => {
  const { pool, connector, task, today, checkCourse } = job
  const answers = readDocument(z.array(Answer), JSON.parse(task.proposal ?? 'null'))
  if (!answers.ok) return failed('the answers are stored in a form that cannot be read')
  const outcome = await runChangeSetTask<z.output<typeof Note>, Ready>(job, {
    isPeoples: true,
    note: Note,
    plan: async (stored, course) => {
      const inputs = await checkInputs(pool, stored, today, today)
      if (!inputs) return { nothing: 'it is under no template, so nothing is asked' }
      const present = withRecordedIdentity(course, await recordedIdentity(pool, task.courseId))
      const filled = fillIn({ ...inputs, course: present }, answers.value)
      if (!filled.ok)
        return {
          outcome: failed(
            `it cannot be read: at ${filled.problems[0]?.path}, found ${filled.problems[0]?.found}`,
          ),
        }
      const { changes, written, left, pictures } = filled.value
      const halted = await putAssets(connector, pictures)
      if (halted) return { outcome: halted }
      return changes.length === 0
        ? { nothing: `nothing was written${leftWords(left.length)}` }
        : { changes, note: { written: written.length, left: left.length } }
    },
    ready: async () => nothingReady,
    keep: async (database, _key, { written }, _ready, changes) => {
      await recordAudit(database, {
        who: task.by,
        what: 'filled in',
        subject: `course ${task.courseId}`,
        to: { run: task.runId, answers: written, pages: changes.length },
      })
    },
    done: ({ written, left }) => `${written} written${leftWords(left)}`,
  })
  // The course was read again with the answer; what is told of it follows at once.
  if (outcome.state === 'done') await checkCourse(task.courseId, today, today)
  return outcome
}
