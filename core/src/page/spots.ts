/** A text without its white space: platforms set it as they like. */
const dense = (text: string): string => text.replace(/\s+/g, '')

/**
 * What stands in the spots of a text, in order: its own sentences have to stand around them, word for word. In time that grows
 * with the text.
 * @param wanted the text as it is written, with what each spot says until it is filled in
 * @param prompts what the spots say, in order
 * @returns the fillings without white space; null where the sentences around them are others
 */
export const fillings = (
  wanted: string,
  prompts: readonly string[],
  text: string,
): string[] | null => {
  const around: string[] = []
  let rest = dense(wanted)
  for (const prompt of prompts.map(dense)) {
    const at = rest.indexOf(prompt)
    if (at < 0) return null
    around.push(rest.slice(0, at))
    rest = rest.slice(at + prompt.length)
  }
  const stands = dense(text)
  const [first = '', ...between] = around
  if (!stands.startsWith(first) || !stands.endsWith(rest)) return null
  const end = stands.length - rest.length
  const found: string[] = []
  let from = first.length
  for (const words of between) {
    // At least one sign is left to each spot, where there is nothing between two of them.
    const at = stands.indexOf(words, words === '' ? from + 1 : from)
    if (at < 0 || at + words.length > end) return null
    found.push(stands.slice(from, at))
    from = at + words.length
  }
  if (from > end) return null
  return prompts.length === 0 ? (from === end ? [] : null) : [...found, stands.slice(from, end)]
}
