/** Production: server and worker in one terminal, settings from the environment. Either may also be started alone, as often as wanted. */
import { startProcess, type StartedProcess } from './processes.ts'

const started: StartedProcess[] = []
let stopping = false
const stopAll = async (code: number): Promise<void> => {
  if (stopping) return
  stopping = true
  await Promise.all(started.map((one) => one.stop()))
  process.exit(code)
}
for (const signal of ['SIGINT', 'SIGTERM'] as const) process.on(signal, () => void stopAll(0))
try {
  const server = await startProcess('server/src/main.ts', {}, () => void stopAll(1))
  started.push(server)
  started.push(await startProcess('server/src/worker.ts', {}, () => void stopAll(1)))
  console.log(`Wickerframe listens on port ${String(server.said['listening'])}`)
} catch (cause) {
  console.error(cause instanceof Error ? cause.message : cause)
  await stopAll(1)
}
