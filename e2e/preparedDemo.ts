import { cpSync, existsSync, mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'

/** Names the folder of this run in which demo colleges are kept; those who run its files find it in their environment. */
const variable = 'WICKERFRAME_PREPARED_DEMOS'

/** Once for a run: the folder, and its end. */
export default (): (() => void) => {
  if (process.env[variable] !== undefined) return () => undefined
  const folder = mkdtempSync(join(tmpdir(), 'wf-demos-'))
  process.env[variable] = folder
  return () => rmSync(folder, { recursive: true, force: true })
}

const mostMinutes = 5

/**
 * Fills a folder with the database of a demo college of so many courses. The first who asks for that many loads it, the others
 * of the run copy what came of it.
 * @param load makes the database in a folder and ends whatever it started
 */
export const demoDatabase = async (
  folder: string,
  courses: number,
  load: (folder: string) => Promise<void>,
): Promise<void> => {
  const all = process.env[variable]
  if (all === undefined) return load(folder)
  const [kept, ready, failed] = ['', '.ready', '.failed'].map((end) =>
    join(all, `${courses}${end}`),
  )
  if (kept === undefined || ready === undefined || failed === undefined) return
  if (isFirst(kept)) {
    try {
      await load(kept)
      writeFileSync(ready, '')
    } catch (cause) {
      writeFileSync(failed, String(cause))
      throw cause
    }
  }
  for (const end = Date.now() + mostMinutes * 60_000; !existsSync(ready);) {
    if (existsSync(failed)) throw new Error(`the demo of ${courses} courses could not be loaded`)
    if (Date.now() > end) throw new Error(`the demo of ${courses} courses is not loaded yet`)
    await new Promise((resolve) => setTimeout(resolve, 100))
  }
  cpSync(kept, folder, { recursive: true })
}

/** Of several who ask at once, one makes the folder. */
const isFirst = (folder: string): boolean => {
  try {
    mkdirSync(folder)
    return true
  } catch {
    return false
  }
}
