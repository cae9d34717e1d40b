import { hexOf, over, readColour } from '../colour/index.ts'
import { rememberOf } from '../remember/index.ts'
import type { HouseStyle } from './houseStyle.ts'

/** What blocks call the pieces of their HTML that a house style shapes. */
export const houseRoles = [
  'note',
  'card',
  'banner',
  'picture',
  'plate',
  'above',
  'banner-title',
  'route',
  'stop',
  'last-stop',
  'number',
  'cards',
  'leading-card',
  'small',
  'people',
  'portrait',
  'letter',
  'round-portrait',
  'dates',
  'date-line',
  'date',
  'signature',
] as const
export type HouseRole = (typeof houseRoles)[number]

/** Which roles have a ground of their own: within them, words and links have colours of their own too. */
export const grounded: ReadonlySet<string> = new Set<HouseRole>([
  'note',
  'card',
  'plate',
  'leading-card',
])

/** Declarations by role, and by element; `linkOnGround` is for links that stand on a ground of their own. */
export interface StyleSheet {
  roles: Readonly<Record<HouseRole, string>>
  heading: string
  rule: string
  quote: string
  table: string
  columnHead: string
  cell: string
  linkOnGround: string
  linkOnMain: string
}

const ruleStyles: Readonly<Record<HouseStyle['rules'], string>> = {
  thin: '1px solid',
  double: '4px double',
  dashed: '2px dashed',
}

/** A line as strong as a quarter of the ink on paper. */
const faintLine = ({ ink, paper }: HouseStyle['colours']): string => {
  const [front, back] = [readColour(ink), readColour(paper)]
  return front && back ? hexOf(over({ ...front, a: 0.25 }, back)) : ink
}

/**
 * The inline styles of a house style, as CSS declarations. None needs another: a platform that drops one keeps a page that
 * can be read. Lengths in CSS pixels.
 */
export const styleSheetOf = rememberOf((style: HouseStyle): StyleSheet => {
  const { main, onMain, accent, tint, paper, ink, link } = style.colours
  const faint = faintLine(style.colours)
  const round = style.corners === 'round' ? 'border-radius:8px;' : ''
  const heading = {
    plain: '',
    bar: `border:0;border-left:5px solid ${accent};margin:22px 0 10px;padding:0 0 0 10px;line-height:1.25;display:flow-root`,
    line: `border:0;border-bottom:2px solid ${accent};margin:22px 0 10px;padding:0 0 4px;line-height:1.25;display:flow-root`,
  }[style.headings]
  const stop = 'margin:0 0 0 15px;padding:0 0 16px 34px;list-style:none;border-left:2px dashed'
  const card = `background:${paper};color:${ink};border:1px solid ${faint};${round}padding:12px 16px;overflow-wrap:anywhere`
  // What is drawn beside words keeps clear of what floats beside it (CSS 2.2, 9.4.1: a formatting context of its own).
  return {
    heading,
    rule: `border:0;border-top:${ruleStyles[style.rules]} ${accent};margin:20px 0`,
    quote: `border-left:3px solid ${accent};margin:0 0 16px;padding:2px 0 2px 14px;display:flow-root`,
    table: 'border-collapse:collapse;width:100%;margin:0 0 16px',
    columnHead: `background:${main};color:${onMain};text-align:left;padding:6px 10px;overflow-wrap:anywhere`,
    cell: `border-bottom:1px solid ${faint};text-align:left;vertical-align:top;padding:6px 10px;overflow-wrap:anywhere`,
    linkOnGround: `color:${link}`,
    linkOnMain: `color:${onMain}`,
    roles: {
      note: `background:${tint};color:${ink};border-left:5px solid ${accent};${round}padding:4px 16px;margin:0 0 16px;display:flow-root`,
      card: `${card};margin:0 0 16px;display:flow-root`,
      banner: `display:grid;background:${main};${round}overflow:hidden;margin:0 0 20px`,
      picture: 'grid-area:1/1;display:block;width:100%;height:auto;margin:0',
      plate: `grid-area:1/1;align-self:end;justify-self:start;background:${main};color:${onMain};padding:10px 22px 12px`,
      above: 'margin:0;font-weight:bold',
      'banner-title': `border:0;margin:0;padding:0;color:${onMain};font-size:1.9em;line-height:1.2`,
      letter: 'margin:0 0 16px;display:flow-root',
      route: 'list-style:none;margin:0 0 16px;padding:0;display:flow-root',
      stop: `${stop} ${main}`,
      'last-stop': `${stop} transparent`,
      number: `display:inline-block;width:30px;height:30px;line-height:30px;margin:0 16px 0 -50px;border-radius:50%;background:${main};color:${onMain};font-weight:bold;text-align:center`,
      cards: 'display:flex;flex-wrap:wrap;gap:12px;list-style:none;margin:0 0 16px;padding:0',
      'leading-card': `${card};flex:1 1 140px;max-width:260px;list-style:none;margin:0`,
      small: 'display:block;width:56px;height:56px;margin:0 0 8px',
      people: 'list-style:none;margin:0 0 8px;padding:0',
      portrait: 'display:block;width:100%;max-width:140px;height:auto;margin:0 0 8px',
      'round-portrait': 'float:left;width:96px;height:96px;border-radius:50%;margin:4px 18px 8px 0',
      dates: 'list-style:none;margin:0 0 16px;padding:0;display:flow-root',
      'date-line': `list-style:none;border-bottom:1px solid ${faint};margin:0;padding:5px 0`,
      date: 'display:inline-block;min-width:8em',
      signature: 'font-style:italic;font-size:1.15em;margin:12px 0 4px',
    },
  }
})
