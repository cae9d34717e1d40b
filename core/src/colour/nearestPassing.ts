import { colord } from 'colord'
import { contrastRatio, hexOf, type Colour } from './colour.ts'

/** Lightness is tried in steps of so much, in percent: finer ones are not told apart by eye. */
const step = 0.5

/** A colour that another meets, and how far apart they must be. */
export interface Meeting {
  against: Colour
  ratio: number
}

/**
 * The colour of the same hue that is nearest in lightness and stands out from all that it meets, as `#rrggbb`; itself where it
 * does already; null where none does, neither a darker nor a lighter one.
 */
export const nearestPassing = (colour: Colour, meetings: readonly Meeting[]): string | null => {
  const { h, s, l } = colord(colour).toHsl()
  // Held to the ratio as it is written down, whole steps of red, green and blue.
  const passes = (lightness: number): string | null => {
    const tried = lightness === l ? colour : colord({ h, s, l: lightness }).toRgb()
    return meetings.every(({ against, ratio }) => contrastRatio(tried, against) >= ratio)
      ? hexOf(tried)
      : null
  }
  for (let away = 0; away <= 100; away += step) {
    const found =
      (l - away >= 0 ? passes(l - away) : null) ?? (l + away <= 100 ? passes(l + away) : null)
    if (found !== null) return found
  }
  return passes(0) ?? passes(100)
}
