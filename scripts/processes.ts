import { spawn, type ChildProcess } from 'node:child_process'
import { fileURLToPath } from 'node:url'
import { bundle } from './bundle.ts'
import { recordingEnvironment } from './coverageRecords.ts'

export const root = fileURLToPath(new URL('..', import.meta.url))

export interface StartedProcess {
  child: ChildProcess
  /** What its first line says, read as JSON. */
  said: Record<string, unknown>
  stop: (signal?: NodeJS.Signals) => Promise<void>
}

/** Starts one of our programs and waits until its first line says that it is there. */
export const startProcess = async (
  script: string,
  environment: Readonly<Record<string, string>>,
  onEnd?: (code: number | null) => void,
): Promise<StartedProcess> => {
  const file = await bundle(script)
  return new Promise((resolve, reject) => {
    const child = spawn(process.execPath, [file], {
      cwd: root,
      env: { ...process.env, ...recordingEnvironment(), ...environment },
      stdio: ['ignore', 'pipe', 'pipe'],
      detached: true,
    })
    let out = ''
    let errors = ''
    let ready = false
    child.stderr.on('data', (chunk: Buffer) => {
      errors = (errors + chunk.toString()).slice(-8000)
      if (ready) process.stderr.write(chunk)
    })
    child.stdout.on('data', (chunk: Buffer) => {
      if (ready) return void process.stdout.write(chunk)
      out += chunk.toString()
      const end = out.indexOf('\n')
      if (end < 0) return
      ready = true
      resolve({
        child,
        said: JSON.parse(out.slice(0, end)) as Record<string, unknown>,
        stop: (signal = 'SIGTERM') =>
          new Promise((done) => {
            if (child.exitCode !== null || child.signalCode !== null) return done()
            child.once('exit', () => done())
            child.kill(signal)
            setTimeout(() => child.kill('SIGKILL'), 15_000).unref()
          }),
      })
    })
    child.on('exit', (code) => {
      if (ready) onEnd?.(code)
      else reject(new Error(`${script} ended before it was ready:\n${errors}`))
    })
  })
}
