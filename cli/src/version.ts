import { readFileSync } from 'node:fs'

/** Which version of the command line this is. */
export const versionOf = (): string => {
  // The same place, seen from the sources and from the bundle beside them.
  const text = readFileSync(new URL('../package.json', import.meta.url), 'utf8')
  return (JSON.parse(text) as { version: string }).version
}
