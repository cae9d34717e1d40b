/** Where a house text can be read by anybody, in the words in force. */
export const houseTextAddress = (publicUrl: string, key: string): string =>
  new URL(`/house-texts/${key}`, publicUrl).href
