/** What is longer than this, in characters, is not read. */
export const longestPage = 2_000_000
/** What is nested deeper than this is not written by people, and parsing it takes time that grows with its square. */
export const deepestPage = 400
const mostTags = 60_000

/** Elements that end by themselves where the next begins, or never hold anything. */
const endsItself = new Set(
  'area base br col embed hr img input link meta param source track wbr p li dt dd option tr td th thead tbody tfoot colgroup'.split(
    ' ',
  ),
)

/** A whole number as English writes it: 1,000,000. */
const withCommas = (count: number): string => String(count).replace(/\B(?=(?:\d{3})+$)/g, ',')

/**
 * Why a page is not read, or null when it is: told from its tags alone, in time proportional to its length, before
 * anything that could take longer sees it.
 */
export const whyNotRead = (html: string): string | null => {
  if (html.length > longestPage) return `it is longer than ${withCommas(longestPage)} characters`
  if (html.length < 2000) return null
  let depth = 0
  let count = 0
  for (let at = html.indexOf('<'); at >= 0; at = html.indexOf('<', at + 1)) {
    const closes = html.charCodeAt(at + 1) === 47
    let end = at + (closes ? 2 : 1)
    while (end - at < 14 && isNameCharacter(html.charCodeAt(end))) end += 1
    if (end === at + (closes ? 2 : 1)) continue
    if (++count > mostTags) return `it has more than ${withCommas(mostTags)} tags`
    const name = html.slice(at + (closes ? 2 : 1), end).toLowerCase()
    if (endsItself.has(name)) continue
    depth = closes ? Math.max(0, depth - 1) : depth + 1
    if (depth > deepestPage) return `its elements are nested more than ${deepestPage} deep`
  }
  return null
}

const isNameCharacter = (code: number): boolean =>
  (code >= 97 && code <= 122) || (code >= 65 && code <= 90) || (code >= 48 && code <= 57)
