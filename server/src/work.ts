import { runCheckTask, runRecheckTask } from './checks/checkTask.ts'
import { runImpactTask } from './impact/impactTask.ts'
import { runMendTask } from './mends/mendTask.ts'
import { runRenameTask } from './names/renameTask.ts'
import { runAnswerTask } from './fillIn/answerTask.ts'
import type { CarryOut } from './queue/job.ts'
import type { ClaimedTask } from './queue/tasks.ts'
import { runPlanTask } from './rollouts/planTask.ts'
import { runRolloutTask } from './rollouts/rolloutTask.ts'

/** What each kind of task does; the queue knows how tasks are kept, and nothing of this. */
const kinds: Readonly<Record<ClaimedTask['kind'], CarryOut>> = {
  rollout: runRolloutTask,
  renames: runRenameTask,
  mends: runMendTask,
  answers: runAnswerTask,
  check: runCheckTask,
  recheck: runRecheckTask,
  impact: runImpactTask,
}

export const carryOut: CarryOut = (job) =>
  job.task.toPlan ? runPlanTask(job) : kinds[job.task.kind](job)
