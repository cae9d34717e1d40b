const mostLetters = 48
const entities: Readonly<Record<string, string>> = {
  amp: '&',
  lt: '<',
  gt: '>',
  quot: '"',
  nbsp: ' ',
}

/** The first words of a piece of HTML, by which people know it; at most 48 letters, empty where it has none. */
export const firstWords = (html: string): string => {
  const text = html
    .replace(/<\/?(?:a|b|i|em|strong|u|s|sub|sup|span|code|mark)\b[^>]*>/gi, '')
    .replace(/<[^>]*>/g, ' ')
    .replace(/&(amp|lt|gt|quot|nbsp);/g, (_, name: string) => entities[name] ?? ' ')
    .replace(/\s+/g, ' ')
    .trim()
  if (text.length <= mostLetters) return text
  const cut = text.slice(0, mostLetters)
  const words = cut.slice(0, Math.max(cut.lastIndexOf(' '), 20))
  return `${words.replace(/[\s,;:.–-]+$/, '')} …`
}
