import { contrastRatio, over, readColour, type Colour } from '../colour/index.ts'

/** How text is coloured by the styles written in the page itself; what is not written there is null. */
export interface InlineLook {
  colour: string | null
  background: string | null
  /** CSS pixels. */
  size: number | null
  bold: boolean
}

const paper: Colour = { r: 255, g: 255, b: 255, a: 1 }
const ink: Colour = { r: 0, g: 0, b: 0, a: 1 }

/**
 * Contrast of text whose colour or ground is written in the page, on white paper where no ground is; null where a colour
 * cannot be read. Large text (24 px, or 18.66 px in bold) needs 3, other text 4.5 (WCAG 2.2, 1.4.3).
 */
export const contrastOf = (look: InlineLook): { ratio: number; needed: number } | null => {
  const colour = look.colour === null ? ink : readColour(look.colour)
  const ground = look.background === null ? paper : readColour(look.background)
  if (!colour || !ground) return null
  const back = over(ground, paper)
  const size = look.size ?? 16
  return {
    ratio: contrastRatio(over(colour, back), back),
    needed: size >= 24 || (look.bold && size >= 18.66) ? 3 : 4.5,
  }
}

const pixelsPer: Record<string, number> = { px: 1, pt: 4 / 3, em: 16, rem: 16, '%': 0.16 }
const named: Record<string, number> = {
  'xx-small': 9,
  'x-small': 10,
  small: 13,
  medium: 16,
  large: 18,
  'x-large': 24,
  'xx-large': 32,
}

const sizeOf = (text: string): number | null => {
  const match = /^([\d.]{1,8})(px|pt|em|rem|%)$/.exec(text)
  return match ? Number(match[1]) * (pixelsPer[match[2] ?? ''] ?? 1) : (named[text] ?? null)
}

/** Bounds what is read of one style attribute; longer ones are not written by people. */
const longestStyle = 2000

/** The look that a style attribute gives on top of what is inherited; the inherited one itself where it changes nothing. */
export const lookOf = (style: string, inherited: InlineLook | null): InlineLook | null => {
  let look = inherited
  for (const declaration of style.slice(0, longestStyle).split(';')) {
    const colon = declaration.indexOf(':')
    if (colon < 0) continue
    const property = declaration.slice(0, colon).trim().toLowerCase()
    const value = declaration
      .slice(colon + 1)
      .replace('!important', '')
      .trim()
      .toLowerCase()
    const set = (change: Partial<InlineLook>) => {
      look = { ...(look ?? { colour: null, background: null, size: null, bold: false }), ...change }
    }
    if (property === 'color' && readColour(value)) set({ colour: value })
    else if (property === 'background-color' && readColour(value)) set({ background: value })
    else if (property === 'background') {
      const colour = value.split(/\s+(?![^(]*\))/).find((word) => readColour(word))
      if (colour) set({ background: colour })
    } else if (property === 'font-size') {
      const size = sizeOf(value)
      if (size !== null) set({ size })
    } else if (
      property === 'font-weight' &&
      (value === 'bold' || value === 'bolder' || Number(value) >= 700)
    )
      set({ bold: true })
  }
  return look
}
