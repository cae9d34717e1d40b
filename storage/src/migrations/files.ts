import { createHash } from 'node:crypto'
import { readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'

/** What every table of ours is in: texts compare letter by letter, also what only differs in accents or case. */
export const tableOptions = 'CHARACTER SET utf8mb4 COLLATE utf8mb4_nopad_bin'

export interface Migration {
  /** Name of its file; files run in the order of their names. */
  name: string
  /** Each can be run again, since a migration that was cut short is run from its beginning. */
  statements: string[]
  checksum: string
}

/** Statements of a file: each ends with a semicolon at the end of a line. Tables are made in the character set of ours, whatever the database's own. */
const statementsOf = (text: string): string[] =>
  text
    .replace(/^--.*$/gm, '')
    .split(/;[ \t]*$/m)
    .map((statement) => statement.trim())
    .filter((statement) => statement !== '')
    .map((statement) =>
      /^CREATE TABLE/i.test(statement) ? `${statement} ${tableOptions}` : statement,
    )

/** The numbered `.sql` files of a folder, in order. */
export const migrationsIn = (folder: string): Migration[] =>
  readdirSync(folder)
    .filter((file) => file.endsWith('.sql'))
    .sort()
    .map((name) => {
      const text = readFileSync(join(folder, name), 'utf8')
      return {
        name,
        statements: statementsOf(text),
        checksum: createHash('sha256').update(text).digest('hex'),
      }
    })
