import { TextLine, TextLines } from '../../../../controls/typed.tsx'
import type { BlockEditing } from './editing.tsx'

export const TableEditor = ({ block: { caption, header, rows }, set }: BlockEditing<'table'>) => {
  const lines = [header, ...rows].map((row) => row.join(' | ')).join('\n')
  return (
    <div className="grid gap-2">
      <TextLine
        label="What the table shows"
        value={caption}
        onDone={(now) => set('caption', caption, now)}
      />
      <TextLines
        label="One line a row, cells apart by |; the first line are the headers"
        value={lines}
        onDone={(now) => {
          const [first = [], ...others] = now
            .split('\n')
            .filter((line) => line.trim() !== '')
            .map((line) => line.split('|').map((cell) => cell.trim()))
          const wide = first.length
          if (wide === 0) return
          const fitted = others.map((row) => Array.from({ length: wide }, (_, i) => row[i] ?? ''))
          if (wide === header.length) {
            if (first.join('|') !== header.join('|')) set('header', header, first)
            if (JSON.stringify(fitted) !== JSON.stringify(rows)) set('rows', rows, fitted)
          } else {
            // Rows and headers must agree at every step.
            set('rows', rows, [])
            set('header', header, first)
            if (fitted.length > 0) set('rows', [], fitted)
          }
        }}
      />
    </div>
  )
}
