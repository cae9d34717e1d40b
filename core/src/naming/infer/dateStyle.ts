import { monthNames, dayNames } from '../../calendar/index.ts'

const letterOf = (piece: string, monthFirst: boolean, seenNumber: boolean): string | null => {
  if (/^\d{4}$/.test(piece)) return 'yyyy'
  if (/^\d{1,2}$/.test(piece)) {
    const letter = monthFirst === seenNumber ? 'd' : 'M'
    return piece.startsWith('0') ? letter.repeat(2) : letter
  }
  const month = monthNames.find((name) => name === piece || name.slice(0, 3) === piece)
  if (month) return month === piece && month.length > 3 ? 'MMMM' : 'MMM'
  const day = dayNames.find((name) => name === piece || name.slice(0, 3) === piece)
  return day ? (day === piece ? 'EEEE' : 'EEE') : null
}

/**
 * The style (UTS #35 letters) in which a date or range is written, or null when no style of ours writes it so.
 * @param monthFirst how a date of two numbers is meant
 */
export const dateStyleOf = (written: string, monthFirst = true): string | null => {
  const named = /\p{L}/u.test(written)
  let seenNumber = named
  let style = ''
  for (const piece of written.match(/\p{L}+|\d+|[^\p{L}\d]+/gu) ?? []) {
    if (!/[\p{L}\d]/u.test(piece)) {
      style += piece
      if (/[–—-]/.test(piece) && !/^\d{4}-/.test(written)) seenNumber = named
      continue
    }
    if (piece === 'to') {
      style += piece
      seenNumber = named
      continue
    }
    const letter = letterOf(piece, named ? true : monthFirst, seenNumber)
    if (letter === null) return null
    if (/^\d{1,2}$/.test(piece)) seenNumber = true
    style += letter
  }
  return style
}
