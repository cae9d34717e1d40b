import { readdirSync } from 'node:fs'
import { basename, join } from 'node:path'
import type { RuleExamples } from '../rule.ts'

const folder = join(import.meta.dirname, '..')
const ending = '.examples.ts'

/** The examples of every rule, by its id, from the files beside the rules. */
export const ruleExamples = async (): Promise<ReadonlyMap<string, RuleExamples>> => {
  const files = readdirSync(folder, { recursive: true, encoding: 'utf8' }).filter((file) =>
    file.endsWith(ending),
  )
  return new Map(
    await Promise.all(
      files.map(async (file): Promise<[string, RuleExamples]> => {
        const { examples } = (await import(join(folder, file))) as { examples: RuleExamples }
        return [basename(file, ending), examples]
      }),
    ),
  )
}
