import { readFileSync } from 'node:fs'

/** Resident memory of a process in MB, as Linux tells it: now, or at most so far. */
export const memoryOf = (pid: number | undefined, when: 'now' | 'at most'): number => {
  const status = readFileSync(`/proc/${pid}/status`, 'utf8')
  const found = (when === 'now' ? /VmRSS:\s+(\d+)/ : /VmHWM:\s+(\d+)/).exec(status)
  return Number(found?.[1] ?? 0) / 1024
}
