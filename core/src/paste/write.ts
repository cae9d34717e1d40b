import type { Cell, Piece } from './piece.ts'

const cellHtml = ({ isHead, columns, rows, inner }: Cell, scope: 'col' | 'row'): string => {
  const span = `${columns > 1 ? ` colspan="${columns}"` : ''}${rows > 1 ? ` rowspan="${rows}"` : ''}`
  const [only] = inner
  const text = inner.length === 1 && only?.kind === 'paragraph' ? only.inline : writePieces(inner)
  return isHead ? `<th scope="${scope}"${span}>${text}</th>` : `<td${span}>${text}</td>`
}
const rowHtml = (cells: readonly Cell[]): string => {
  const scope = cells.every(({ isHead }) => isHead) ? 'col' : 'row'
  return `<tr>${cells.map((cell) => cellHtml(cell, scope)).join('')}</tr>`
}

/** The HTML of pieces, in our form: no attribute but what tells structure. Items of drawn lists are lists by then. */
export const writePieces = (pieces: readonly Piece[]): string =>
  pieces
    .map((piece) => {
      switch (piece.kind) {
        case 'heading':
          return `<h${piece.level}>${piece.inline}</h${piece.level}>`
        case 'list': {
          const tag = piece.ordered ? 'ol' : 'ul'
          return `<${tag}>${piece.items.map((item) => `<li>${writePieces(item)}</li>`).join('')}</${tag}>`
        }
        case 'table':
          return `<table>${piece.caption === '' ? '' : `<caption>${piece.caption}</caption>`}<tbody>${piece.rows.map(rowHtml).join('')}</tbody></table>`
        case 'quote':
          return `<blockquote>${writePieces(piece.inner)}</blockquote>`
        case 'rule':
          return '<hr>'
        default:
          return `<p>${piece.inline}</p>`
      }
    })
    .join('')
