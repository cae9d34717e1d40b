import type { FieldTexts } from '@wickerframe/core'
import Docxtemplater from 'docxtemplater'
import { zipSync, type Zippable } from 'fflate'
import PizZip from 'pizzip'

/** The same document filled with the same texts is the same bytes: no part says when it was made. */
const always = new Date('2000-01-01T00:00:00Z')

/** Parts that are packed already: to pack them again takes long and gives nothing. */
const packed = /\.(?:png|jpe?g|gif|mp[34]|m4a|webp)$/i

/**
 * A word-processor document (DOCX) with its fields filled; in braces, as they stand in it: `{code}`. What stands in braces and is none
 * of them stays as it stands.
 * @throws where its braces do not go together
 */
export const fillDocument = (bytes: Uint8Array, fields: FieldTexts): Uint8Array<ArrayBuffer> => {
  const document = new Docxtemplater(new PizZip(bytes), {
    paragraphLoop: false,
    linebreaks: false,
    errorLogging: false,
    syntax: { changeDelimiterPrefix: null, allowUnclosedTag: true, allowUnopenedTag: true },
    parser: (tag: string) => ({ get: () => fields[`{${tag}}`] ?? `{${tag}}` }),
  })
  document.render({})
  const parts: Zippable = {}
  for (const [name, part] of Object.entries(document.getZip().files))
    if (!part.dir)
      parts[name] = [part.asUint8Array(), { mtime: always, level: packed.test(name) ? 0 : 6 }]
  return new Uint8Array(zipSync(parts))
}
