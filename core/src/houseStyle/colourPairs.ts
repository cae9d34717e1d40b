import { contrastRatio, nearestPassing, readColour } from '../colour/index.ts'
import type { HouseColours } from './houseStyle.ts'

type Name = keyof HouseColours

/** What the colours of a house style are called. */
export const houseColourWords: Readonly<Record<Name, string>> = {
  main: 'banners, numbers and table heads',
  onMain: 'words on them',
  accent: 'bars and lines',
  tint: 'notes',
  paper: 'cards and pages',
  ink: 'words on notes and cards',
  link: 'links on notes and cards',
}

/** Which colours meet, which of the two is read, and how far apart they must be (WCAG 2.2, 1.4.3 for words, 1.4.11 for lines). */
const meeting: readonly { words: string; front: Name; ground: Name; needed: 4.5 | 3 }[] = [
  { words: 'words on banners and table heads', front: 'onMain', ground: 'main', needed: 4.5 },
  { words: 'words on cards', front: 'ink', ground: 'paper', needed: 4.5 },
  { words: 'words on notes', front: 'ink', ground: 'tint', needed: 4.5 },
  { words: 'links on cards', front: 'link', ground: 'paper', needed: 4.5 },
  { words: 'links on notes', front: 'link', ground: 'tint', needed: 4.5 },
  { words: 'bars and lines on a page', front: 'accent', ground: 'paper', needed: 3 },
]

/** Two colours of a house style that meet on a page. */
export interface ColourPair {
  /** What stands on what, as people name it. */
  words: string
  front: Name
  ground: Name
  ratio: number
  needed: number
  passes: boolean
  /** The nearest colours that would do with all they meet, one for either: one of them is enough. null: none would. */
  instead: { front: string | null; ground: string | null }
}

/** The nearest colour for one of them that stands out from all that it meets, and that all of it stands out from. */
const nearest = (name: Name, colours: HouseColours): string | null => {
  const colour = readColour(colours[name])
  const meetings = meeting.flatMap(({ front, ground, needed }) => {
    const other = front === name ? ground : ground === name ? front : null
    const against = other === null ? null : readColour(colours[other])
    return against ? [{ against, ratio: needed }] : []
  })
  return colour && nearestPassing(colour, meetings)
}

/** Every two colours of a house style that meet, and whether what stands there can be read. */
export const colourPairs = (colours: HouseColours): ColourPair[] =>
  meeting.flatMap(({ words, front, ground, needed }) => {
    const [one, other] = [readColour(colours[front]), readColour(colours[ground])]
    if (!one || !other) return []
    const ratio = contrastRatio(one, other)
    return [
      {
        words,
        front,
        ground,
        ratio,
        needed,
        passes: ratio >= needed,
        instead: { front: nearest(front, colours), ground: nearest(ground, colours) },
      },
    ]
  })
