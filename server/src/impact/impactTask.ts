import type { Job } from '../queue/job.ts'
import { failed, later, type TaskOutcome } from '../queue/outcome.ts'
import { finishTask } from '../queue/tasks.ts'

/** Holds a draft against one course as it was last read; the platform is not asked. */
export const runImpactTask = async ({
  pool,
  task,
  today,
  foreseeCourse,
}: Job): Promise<TaskOutcome> => {
  const answer = await foreseeCourse(task.courseId, task.runId, today)
  if (answer.state === 'gone') return failed('the course is gone')
  if (answer.state === 'failed') return later(answer.message, null)
  return (await finishTask(pool, task, 'done', 'held against the draft'))
    ? { state: 'done' }
    : { state: 'lost-lease' }
}
