import { colord, extend } from 'colord'
import names from 'colord/plugins/names'

extend([names])

/** Red, green and blue, 0 to 255, and opacity 0 to 1. */
export interface Colour {
  r: number
  g: number
  b: number
  a: number
}

/** Reads a CSS colour (CSS Color 4: names, hexadecimal, rgb, hsl); null for anything else, `inherit` and the like. */
export const readColour = (text: string): Colour | null => {
  const colour = colord(text.trim().toLowerCase())
  return colour.isValid() ? colour.toRgb() : null
}

const channel = (value: number): number => {
  const share = value / 255
  return share <= 0.04045 ? share / 12.92 : ((share + 0.055) / 1.055) ** 2.4
}

/** Relative luminance, 0 black to 1 white, as WCAG 2.2 defines it. */
export const relativeLuminance = ({ r, g, b }: Colour): number =>
  0.2126 * channel(r) + 0.7152 * channel(g) + 0.0722 * channel(b)

/** Contrast ratio of two opaque colours, 1 to 21, as WCAG 2.2 defines it. */
export const contrastRatio = (colour: Colour, other: Colour): number => {
  const [light, dark] = [relativeLuminance(colour), relativeLuminance(other)].sort((a, b) => b - a)
  return ((light ?? 0) + 0.05) / ((dark ?? 0) + 0.05)
}

/** What is seen where a colour lies over an opaque one. */
export const over = (front: Colour, back: Colour): Colour => {
  const mix = (a: number, b: number) => a * front.a + b * (1 - front.a)
  return { r: mix(front.r, back.r), g: mix(front.g, back.g), b: mix(front.b, back.b), a: 1 }
}

/** A colour as `#rrggbb`. */
export const hexOf = ({ r, g, b }: Colour): string =>
  `#${[r, g, b].map((value) => Math.round(value).toString(16).padStart(2, '0')).join('')}`
