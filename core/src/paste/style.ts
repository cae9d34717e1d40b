/** The value of a property in the text of a `style` attribute, in small letters; empty: it is not there. */
export const styleOf = (style: string, property: string): string =>
  new RegExp(`(?:^|;)\\s*${property}\\s*:\\s*([^;]*)`, 'i')
    .exec(style)?.[1]
    ?.trim()
    .toLowerCase() ?? ''

const isHeavy = (weight: string): boolean => /^(?:bold|bolder|[6-9]00)$/.test(weight)
const isPlainWeight = (weight: string): boolean => /^(?:normal|lighter|[1-5]00)$/.test(weight)

/** How a piece of text stands out. */
export type Mark = 'strong' | 'em' | 's' | 'sup' | 'sub' | 'code'
const ofElement: Readonly<Record<string, Mark>> = {
  b: 'strong',
  strong: 'strong',
  i: 'em',
  em: 'em',
  cite: 'em',
  dfn: 'em',
  var: 'em',
  s: 's',
  strike: 's',
  sup: 'sup',
  sub: 'sub',
  code: 'code',
  kbd: 'code',
  samp: 'code',
  tt: 'code',
}

/** How text stands out in an element, given how it does around it: by what the element is, or by its style. */
export const marksIn = (
  tag: string,
  style: string,
  around: ReadonlySet<Mark>,
): ReadonlySet<Mark> => {
  const marks = new Set(around)
  const own = ofElement[tag]
  if (own) marks.add(own)
  const weight = styleOf(style, 'font-weight')
  if (isHeavy(weight)) marks.add('strong')
  if (isPlainWeight(weight)) marks.delete('strong')
  const slant = styleOf(style, 'font-style')
  if (slant === 'italic' || slant === 'oblique') marks.add('em')
  if (slant === 'normal') marks.delete('em')
  if (/line-through/.test(styleOf(style, 'text-decoration(?:-line)?'))) marks.add('s')
  const stands = styleOf(style, 'vertical-align')
  if (stands === 'super') marks.add('sup')
  if (stands === 'sub') marks.add('sub')
  return marks
}
