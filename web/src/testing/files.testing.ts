import type { KeptFile } from '@wickerframe/contract'
import type { Asked } from './server.testing.ts'
import { Refusal } from './server.testing.ts'

/** What a file holds in these tests: another one for every name. */
export const contentFor = (name: string): string =>
  [...name]
    .reduce((sum, letter) => sum + letter.charCodeAt(0), 0)
    .toString(16)
    .padStart(64, 'a')

/** How a server keeps a file that is brought in: one called `bad…` is refused, a DOCX has a field. */
export const keptFile = ({ query }: Asked): KeptFile => {
  const name = query['name'] ?? ''
  if (name.startsWith('bad')) throw new Refusal(400, `“${name}” was not put in: it is no PDF`)
  const isDocument = name.endsWith('.docx')
  return {
    fileName: name,
    content: contentFor(name),
    bytes: 2048,
    kind: isDocument ? 'docx' : 'pdf',
    fields: isDocument ? ['{code}'] : [],
    notFields: isDocument ? ['{see below}'] : [],
    unfillable: null,
    ...(isDocument ? { words: 'Syllabus of {code}' } : {}),
  }
}

export const fileNamed = (name: string, size = 3): File =>
  new File([new Uint8Array(size)], name, { type: 'application/octet-stream' })
