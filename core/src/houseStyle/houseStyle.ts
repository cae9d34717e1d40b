import { z } from 'zod'

const Hex = z
  .string()
  .regex(/^#[0-9a-f]{6}$/, 'a colour as six hexadecimal digits in lower case, e.g. #143f52')

/** The colours of a house style. Words that have a colour have a ground of their own, so that they stay readable wherever a page is shown. */
export const HouseColours = z.strictObject({
  main: Hex.describe('Ground of banners, of the numbers of a route and of the heads of tables'),
  onMain: Hex.describe('Words on it'),
  accent: Hex.describe('Bars and lines'),
  tint: Hex.describe('Ground of notes'),
  paper: Hex.describe('Ground of cards; also what pages are taken to be shown on'),
  ink: Hex.describe('Words on notes and cards'),
  link: Hex.describe('Links on notes and cards'),
})
export type HouseColours = z.output<typeof HouseColours>

/** How the pages of a template look: inline styles of plain HTML, which reads as well where they are dropped. */
export const HouseStyle = z.strictObject({
  colours: HouseColours,
  headings: z
    .enum(['plain', 'bar', 'line'])
    .default('bar')
    .describe('bar: a bar beside them; line: a line below them'),
  rules: z.enum(['thin', 'double', 'dashed']).default('thin').describe('Lines across a page'),
  corners: z.enum(['square', 'round']).default('square').describe('Of notes, cards and banners'),
})
export type HouseStyle = z.output<typeof HouseStyle>

/** Where a designer begins. */
export const firstHouseStyle: HouseStyle = {
  colours: {
    main: '#143f52',
    onMain: '#ffffff',
    accent: '#b5703a',
    tint: '#f6eee2',
    paper: '#ffffff',
    ink: '#1d2a32',
    link: '#0b5a6e',
  },
  headings: 'bar',
  rules: 'thin',
  corners: 'square',
}
