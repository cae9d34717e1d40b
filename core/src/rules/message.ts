/** A sentence with its named values written in. A name without a value is a mistake in the rule. */
export const fillMessage = (sentence: string, values: Readonly<Record<string, string>>): string =>
  sentence.replace(/\{(\w+)\}/g, (_, name: string) => {
    const value = values[name]
    if (value === undefined)
      throw new RangeError(`the message ${JSON.stringify(sentence)} wants a value for ${name}`)
    return value
  })
