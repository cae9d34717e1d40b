/**
 * Milliseconds of processor time that work takes: what other programs do on the machine does not count. Only in a process
 * that does nothing else meanwhile, as the project of timings gives each file one.
 */
export const processorMilliseconds = (work: () => void): number => {
  const before = process.cpuUsage()
  work()
  const { system, user } = process.cpuUsage(before)
  return (system + user) / 1000
}
