import { readFileSync } from 'node:fs'

/** Which version of this program runs; read where it stands, beside the sources and beside the bundle. */
export const versionOf = (): string => {
  const text = readFileSync(new URL('../package.json', import.meta.url), 'utf8')
  return (JSON.parse(text) as { version: string }).version
}
