/**
 * A text without what it ends in of these characters, in time proportional to that end: a pattern that ends in `$` would look
 * from each of them anew, wherever they stand.
 */
export const withoutEnd = (text: string, characters: string): string => {
  let end = text.length
  while (end > 0 && characters.includes(text.charAt(end - 1))) end -= 1
  return text.slice(0, end)
}
