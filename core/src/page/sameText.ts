const space = /\s/
/** Whether white space stands at a place; the usual kinds are told without a pattern. */
const isSpace = (code: number): boolean =>
  code === 32 ||
  (code >= 9 && code <= 13) ||
  code === 0xa0 ||
  (code > 0x1600 && space.test(String.fromCharCode(code)))

/** The place of the first sign of a text from `at` on that is no white space; its length when there is none. */
const pastSpace = (text: string, at: number): number => {
  let i = at
  while (i < text.length && isSpace(text.charCodeAt(i))) i += 1
  return i
}

/** Texts that differ only in where paragraphs and spaces fall are the same text. */
export const sameText = (one: string, other: string): boolean => {
  if (one === other) return true
  let i = pastSpace(one, 0)
  let j = pastSpace(other, 0)
  while (i < one.length && j < other.length) {
    if (one.charCodeAt(i) !== other.charCodeAt(j)) return false
    i = pastSpace(one, i + 1)
    j = pastSpace(other, j + 1)
  }
  return i === one.length && j === other.length
}

const lessThan = 0x3c
const ampersand = 0x26
/** A tag whose content is text, at a place. */
const plainTag = /<(?!script|style|template|noscript|!)[^<>]*>/iy
const entity = /&(amp|lt|gt|quot);/y
const entityCodes: Readonly<Record<string, number>> = { amp: 0x26, lt: 0x3c, gt: 0x3e, quot: 0x22 }
/** Typographic quotation marks are straightened in a page's text. */
const straightened = (code: number): number =>
  code === 0x2018 || code === 0x2019 ? 0x27 : code === 0x201c || code === 0x201d ? 0x22 : code

/**
 * Whether a page's text is what HTML says, told without parsing it: its tags left out, wherever white space falls. False
 * also where that is not enough to tell (comments, scripts, other entities).
 */
export const isTextOf = (text: string, html: string): boolean => {
  let i = pastSpace(text, 0)
  let j = 0
  while (j < html.length) {
    let code = html.charCodeAt(j)
    if (isSpace(code)) {
      j += 1
      continue
    }
    if (code === lessThan) {
      plainTag.lastIndex = j
      if (!plainTag.test(html)) return false
      j = plainTag.lastIndex
      continue
    }
    if (code === ampersand) {
      entity.lastIndex = j
      const name = entity.exec(html)?.[1]
      if (name === undefined) return false
      code = entityCodes[name] ?? code
      j = entity.lastIndex
    } else j += 1
    if (text.charCodeAt(i) !== straightened(code)) return false
    i = pastSpace(text, i + 1)
  }
  return i === text.length
}
