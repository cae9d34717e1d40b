import { useMemo } from 'react'
import {
  blockHtmlOn,
  framesInWords,
  type ExpectedBlock,
  type ExpectedPart,
} from '@wickerframe/core'

export type Reader = 'instructor' | 'student'

const style = `
  body { font: 15px/1.65 Georgia, serif; color: #1d2a32; background: #fffdf8; margin: 14px; }
  a { color: #0b6468; } img { max-width: 100%; } h2, h3 { line-height: 1.25; margin: .6em 0 .3em; }
  .fill { font-style: italic; background: repeating-linear-gradient(135deg, #0b6468 0 1.5px, transparent 1.5px 5px) left bottom / 100% 5px no-repeat; padding-bottom: 6px; }
  .note { border-left: 3px solid #8f8064; padding: .3rem .8rem; background: repeating-linear-gradient(#fffdf8 0 21px, #ddd3c0 21px 22px); }
  .house { border: 1px solid #b9ab92; padding: .3rem .8rem; } .house small { font: 12px sans-serif; color: #5d6972; }
`

/** A piece that asks the instructor, told from what stays. */
const marked = (piece: string): string => {
  const whole = piece.replace(/^<p>/, '<p class="fill">')
  return whole === piece ? `<span class="fill">${piece}</span>` : whole
}

const shown = (
  block: ExpectedBlock,
  reader: Reader,
  onDate: string,
  assets: ReadonlyMap<string, string>,
): string => {
  let html = framesInWords(blockHtmlOn(block, onDate))
    .replace(/src="asset:([\w.-]+)"/g, (whole, name: string) =>
      assets.has(name) ? `src="${assets.get(name)}"` : whole,
    )
    .replace(/href="(?:ref|handout|house-file):[^"]*"/g, 'href="#"')
  if (block.kind === 'guidance-note')
    return reader === 'student' ? '' : `<div class="note">${html}</div>`
  if (reader === 'instructor')
    for (const piece of block.asks) html = html.replace(piece, marked(piece))
  if (block.houseText && reader === 'instructor')
    return `<div class="house"><small>House text · ${block.houseText.title}</small>${html}</div>`
  return html
}

/** A page as its readers will see it in the chosen course. Nothing in it can run: the frame has no rights at all. */
export const Reading = ({
  part,
  reader,
  onDate,
  assets,
  isWhole = false,
}: {
  part: ExpectedPart
  reader: Reader
  onDate: string
  assets: ReadonlyMap<string, string>
  /** Whether the window is the page’s, but for what stands above it. */
  isWhole?: boolean
}) => {
  const html = useMemo(
    () =>
      `<!doctype html><style>${style}</style>${part.blocks.map((block) => shown(block, reader, onDate, assets)).join('\n')}`,
    [part, reader, onDate, assets],
  )
  return (
    <iframe
      title={`${part.name}, as ${reader === 'student' ? 'students' : 'the instructor'} will read it`}
      sandbox=""
      srcDoc={html}
      className={`w-full border border-line bg-sheet ${part.kind === 'assessment' ? 'h-56' : isWhole ? 'h-[max(20rem,calc(100vh-12rem))]' : 'h-[max(20rem,calc(100vh-26rem))]'}`}
    />
  )
}
