/**
 * A sentence with its named values written in. A value may bring its noun along, which is written in the plural: `{seen words}`
 * is “1 word” or “12 words”. A name without a value is a mistake in the rule.
 */
export const fillMessage = (sentence: string, values: Readonly<Record<string, string>>): string =>
  sentence.replace(/\{(\w+)(?: (\w+)s)?\}/g, (_, name: string, noun: string | undefined) => {
    const value = values[name]
    if (value === undefined)
      throw new RangeError(`the message ${JSON.stringify(sentence)} wants a value for ${name}`)
    return noun === undefined ? value : `${value} ${noun}${value === '1' ? '' : 's'}`
  })
