import { closeSync, openSync, readFileSync, rmSync, writeSync } from 'node:fs'

const runs = (pid: number, program: string): boolean => {
  try {
    return readFileSync(`/proc/${pid}/cmdline`, 'utf8').includes(program)
  } catch {
    return false
  }
}

/**
 * Takes a folder for this process: a second start says who is there, one whose process is gone is taken over.
 * @param program what a process that may hold it runs: its number may be another program's by now
 * @returns what gives it back, or the id of the process that has it
 */
export const takeFolder = (
  file: string,
  program: string,
): { giveBack: () => void } | { heldBy: number } => {
  for (;;) {
    try {
      const descriptor = openSync(file, 'wx', 0o600)
      writeSync(descriptor, String(process.pid))
      closeSync(descriptor)
      return { giveBack: () => rmSync(file, { force: true }) }
    } catch (cause) {
      if (!(cause instanceof Error && 'code' in cause && cause.code === 'EEXIST')) throw cause
    }
    const pid = Number(readFileSync(file, 'utf8'))
    if (pid > 0 && pid !== process.pid && runs(pid, program)) return { heldBy: pid }
    rmSync(file, { force: true })
  }
}
