import { colord } from 'colord'
import { contrastRatio, hexOf, type Colour } from './colour.ts'

/** Lightness is tried in steps of so much, in percent: finer ones are not told apart by eye. */
const step = 0.5

/**
 * The colour of the same hue that is nearest in lightness and stands out from another by at least a ratio, as `#rrggbb`; itself
 * where it does already; null where none does, neither a darker nor a lighter one.
 */
export const nearestPassing = (colour: Colour, against: Colour, ratio: number): string | null => {
  const { h, s, l } = colord(colour).toHsl()
  // Held to the ratio as it is written down, whole steps of red, green and blue.
  const passes = (lightness: number): string | null => {
    const tried = lightness === l ? colour : colord({ h, s, l: lightness }).toRgb()
    return contrastRatio(tried, against) >= ratio ? hexOf(tried) : null
  }
  for (let away = 0; away <= 100; away += step) {
    const found =
      (l - away >= 0 ? passes(l - away) : null) ?? (l + away <= 100 ? passes(l + away) : null)
    if (found !== null) return found
  }
  return passes(0) ?? passes(100)
}
