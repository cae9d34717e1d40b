import { withHtmlOfChange, type Change } from '@wickerframe/core'

/** Where a house text can be read by anybody, in the words in force. */
export const houseTextAddress = (publicUrl: string, key: string): string =>
  new URL(`/house-texts/${key}`, publicUrl).href

/** Where the newest of a file of the library can be had by anybody. */
export const houseFileAddress = (publicUrl: string, key: string): string =>
  new URL(`/house-files/${key}`, publicUrl).href

/** Changes whose links to what the house keeps for all courses lead to where it is kept. */
export const withPublicAddresses = (changes: readonly Change[], publicUrl: string): Change[] =>
  changes.map((change) =>
    withHtmlOfChange(change, (html) =>
      html.replace(
        /href="house-(text|file):([a-z0-9-]{1,80})"/g,
        (_, what: string, key: string) =>
          `href="${(what === 'text' ? houseTextAddress : houseFileAddress)(publicUrl, key)}"`,
      ),
    ),
  )
