/** What of something pasted is kept: text in its structure, and nothing of how it looked. Inline HTML is written already. */
export type Piece =
  | { kind: 'paragraph'; inline: string }
  | { kind: 'heading'; level: number; inline: string }
  | { kind: 'list'; ordered: boolean; items: Piece[][] }
  /** A paragraph that its writer drew as an item of a list, before it is one. */
  | { kind: 'item'; ordered: boolean; depth: number; inline: string }
  | { kind: 'table'; caption: string; rows: Cell[][] }
  | { kind: 'quote'; inner: Piece[] }
  | { kind: 'rule' }

export interface Cell {
  isHead: boolean
  columns: number
  rows: number
  inner: Piece[]
}

/** What is left out, called by one of it and by several. */
const leftWords = {
  image: ['image', 'images'],
  drawing: ['drawing', 'drawings'],
  video: ['video', 'videos'],
  sound: ['sound', 'sounds'],
  embedded: ['embedded page', 'embedded pages'],
  control: ['control', 'controls'],
  deleted: ['deleted passage', 'deleted passages'],
  comment: ['comment', 'comments'],
  link: ['link that leads nowhere from here', 'links that lead nowhere from here'],
  table: ['table inside a table', 'tables inside tables'],
} as const
/** How much of each is left out. */
export type Left = Map<keyof typeof leftWords, number>
export const leaveOut = (left: Left, what: keyof typeof leftWords): void => {
  left.set(what, (left.get(what) ?? 0) + 1)
}
export const wordsOfLeft = (left: Left): string[] =>
  [...left].map(([what, count]) => `${count} ${leftWords[what][count === 1 ? 0 : 1]}`)
