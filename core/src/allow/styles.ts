/**
 * What inline styles may say: how words look, and where they stand on their page. Nothing that takes them out of it
 * (`position`), lays something over the rest of it, or asks for a file. One list for what goes out, for what is shown of a
 * course, and for the practice platform.
 */
export const styleProperties = [
  'align-self',
  'aspect-ratio',
  'background',
  'background-color',
  'border',
  'border-bottom',
  'border-collapse',
  'border-color',
  'border-left',
  'border-radius',
  'border-right',
  'border-spacing',
  'border-style',
  'border-top',
  'border-width',
  'box-sizing',
  'clear',
  'color',
  'direction',
  'display',
  'flex',
  'flex-wrap',
  'float',
  'font',
  'font-family',
  'font-size',
  'font-style',
  'font-variant',
  'font-weight',
  'gap',
  'grid-area',
  'height',
  'justify-self',
  'letter-spacing',
  'line-height',
  'list-style',
  'list-style-type',
  'margin',
  'margin-bottom',
  'margin-left',
  'margin-right',
  'margin-top',
  'max-height',
  'max-width',
  'min-height',
  'min-width',
  'overflow',
  'overflow-wrap',
  'padding',
  'padding-bottom',
  'padding-left',
  'padding-right',
  'padding-top',
  'text-align',
  'text-decoration',
  'text-indent',
  'text-transform',
  'unicode-bidi',
  'vertical-align',
  'white-space',
  'width',
  'word-spacing',
] as const
const properties: ReadonlySet<string> = new Set(styleProperties)

/** Style that asks for something, hides what it says behind escapes, or runs in old browsers. */
export const activeStyle =
  /url\s*\(|expression\s*\(|@import|behaviou?r\s*:|-moz-binding|image-set\s*\(|\\/i
/** Values that hold nothing but words, numbers, colours and sums of them; a platform’s sanitiser takes it as it is. */
export const styleValue =
  /^(?!.*(?:url|image|image-set|expression|element|attr)\s*\()[\w\s#%.,'"()*+/!-]*$/i

/** Whether a declaration, e.g. `color:#143f52`, is on the list. */
const isLetIn = (declaration: string): boolean => {
  const colon = declaration.indexOf(':')
  return (
    properties.has(declaration.slice(0, colon).trim().toLowerCase()) &&
    styleValue.test(declaration.slice(colon + 1))
  )
}

/** The declarations of a style that are let in; the style as it is written where all of them are. */
export const styleLetIn = (style: string): string => {
  const declarations = style.split(';').filter((declaration) => declaration.trim() !== '')
  const kept = declarations.filter(isLetIn)
  return kept.length === declarations.length ? style : kept.map((text) => text.trim()).join(';')
}
