import { FieldTexts, ShownFile, type WrittenFile } from './content.ts'

/** How a page of a template leads to one of its files. */
export const handoutTo = (key: string): string => `handout:${key}`

/** How a page that is sent leads to the newest of a file of the library, until its address is put in its place. */
export const houseFileTo = (key: string): string => `house-file:${key}`

/** The key of a house file that an address leads to, as it is sent or as it stands in a course; null where it is none. */
export const houseFileAt = (address: string): string | null =>
  /^(?:house-file:|https?:\/\/[^?#]*\/house-files\/)([a-z0-9-]{1,80})$/.exec(address)?.[1] ?? null

/** Keys of the files that HTML of a template leads to, in the order in which they stand. */
export const handoutsIn = (html: string): string[] => [
  ...new Set([...html.matchAll(/href="handout:([a-z0-9-]{1,80})"/g)].map(([, key = '']) => key)),
]

/** HTML of a template with each link to one of its files written anew; null leaves it as it is. */
export const withHandoutLinks = (html: string, to: (key: string) => string | null): string =>
  html.includes('href="handout:')
    ? html.replace(/href="handout:([a-z0-9-]{1,80})"/g, (whole, key: string) => {
        const address = to(key)
        return address === null ? whole : `href="${address}"`
      })
    : html

/** Half of a letter, as broken names have it: no address can carry it. */
const halfLetter = /[\ud800-\udfff]/gu

/** A part of an address that stands in an attribute as it is: nothing in it has to be escaped again. */
const encoded = (text: string): string =>
  encodeURIComponent(text.replace(halfLetter, '\ufffd'))
    .replace(/'/g, '%27')
    .replace(/\(/g, '%28')
    .replace(/\)/g, '%29')

/**
 * How a page that is sent leads to a file: by what it holds and what it is called there, `handout:CONTENT/NAME`; a document that is
 * still to be filled with what it is filled with as well, `?TEXTS`. A platform puts its own address in its place.
 */
export const sentHandout = ({ name, content, fields }: WrittenFile): string =>
  `handout:${content}/${encoded(name)}${fields ? `?${encoded(JSON.stringify(fields))}` : ''}`

const decoded = (text: string): string | null => {
  try {
    return decodeURIComponent(text)
  } catch {
    return null
  }
}

/** The file that an address of a page that is sent speaks of; null where it speaks of none. */
export const readHandoutAddress = (address: string): WrittenFile | null => {
  const [, content = '', name = '', texts] =
    /^handout:([0-9a-f]{64})\/([^/?#"]{1,2000})(?:\?([^#"]*))?$/.exec(address) ?? []
  const shown = ShownFile.safeParse({ name: decoded(name), content })
  if (!shown.success) return null
  if (texts === undefined) return shown.data
  const json = decoded(texts)
  if (json === null) return null
  try {
    const fields = FieldTexts.safeParse(JSON.parse(json))
    return fields.success ? { ...shown.data, fields: fields.data } : null
  } catch {
    return null
  }
}

const sentLink = /href="(handout:[0-9a-f]{64}\/[^"<>]*)"/g

/** The files that HTML which is sent leads to, each once, in the order in which they stand. */
export const filesLedTo = (html: string): WrittenFile[] =>
  html.includes('href="handout:')
    ? [...new Set([...html.matchAll(sentLink)].map(([, address = '']) => address))].flatMap(
        (address) => readHandoutAddress(address) ?? [],
      )
    : []

/** HTML which is sent with the address of each file it leads to written anew. */
export const withFilesLedTo = (html: string, to: (file: WrittenFile) => string): string =>
  html.includes('href="handout:')
    ? html.replace(sentLink, (whole, address: string) => {
        const file = readHandoutAddress(address)
        return file ? `href="${to(file)}"` : whole
      })
    : html
