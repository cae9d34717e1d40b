import { existsSync, readFileSync } from 'node:fs'

/** Whether a process is one of ours that was started from this folder: told by what it runs and by its environment. */
const isOurs = (pid: number, root: string): boolean => {
  try {
    return (
      readFileSync(`/proc/${pid}/cmdline`, 'utf8').includes(root) &&
      readFileSync(`/proc/${pid}/environ`, 'utf8').split('\0').includes(`WICKERFRAME_HOME=${root}`)
    )
  } catch {
    // It is gone, or not ours to look at.
    return false
  }
}

/**
 * Ends processes of an earlier start that was killed outright, by the ids that were written down; none but ours.
 * @returns the ids of those that were ended
 */
export const endLeftOvers = async (pidsFile: string, root: string): Promise<number[]> => {
  if (!existsSync(pidsFile)) return []
  const ended = readFileSync(pidsFile, 'utf8')
    .split('\n')
    .map(Number)
    .filter((pid) => Number.isSafeInteger(pid) && pid > 0 && isOurs(pid, root))
  for (const signal of ['SIGTERM', 'SIGKILL'] as const) {
    for (const pid of ended) if (isOurs(pid, root)) process.kill(pid, signal)
    for (let waited = 0; waited < 50 && ended.some((pid) => isOurs(pid, root)); waited++)
      await new Promise((resolve) => setTimeout(resolve, 100))
  }
  return ended
}
