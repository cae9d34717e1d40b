/** Small words that make up a third of any running text, by language; each stands in one language of the list only. */
const smallWords: Readonly<Record<string, string>> = {
  en: 'the and of to is that it for was with as are this be by have from which you not what were when there their',
  fr: 'les des est dans une que qui pour sur avec sont pas il elle vous nous cette ces aux leur mais où être plus et faut',
  de: 'der und die das ist nicht ein eine mit auf für von dem den zu sich auch wird sind im werden bei nach oder wir',
  es: 'los las una que por para con del está son como más pero sus este esta muy hay cuando donde también y el',
  nb: 'og det som er på ikke med til av har jeg vi skal være eller ved kan den når disse også etter hvor',
}
const languages = Object.keys(smallWords)
/** For each small word the places of its languages in the list. */
const languagesOfWord = new Map<string, number[]>()
for (const [place, words] of Object.values(smallWords).entries())
  for (const word of words.split(' '))
    languagesOfWord.set(word, [...(languagesOfWord.get(word) ?? []), place])
const longestSmallWord = Math.max(...[...languagesOfWord.keys()].map((word) => word.length))

const fewestWords = 10
/** The beginning of a text tells its language as well as the whole of it. */
const mostRead = 400
/** A text shorter than this has no ten words. */
const shortest = 2 * fewestWords - 1
const isLetter = (unit: number): boolean =>
  (unit >= 97 && unit <= 122) || (unit > 0xbf && (unit < 0x2000 || unit > 0x206f))

/**
 * The language of a running text, as a two-letter tag, where its small words leave no doubt; null where they do, or where
 * it is shorter than ten words. Told from function words: common practice, no source.
 */
export const languageOf = (text: string): string | null => {
  if (text.length < shortest) return null
  const read = text.slice(0, mostRead).toLowerCase()
  const counts = languages.map(() => 0)
  let words = 0
  for (let at = 0; at < read.length; at++) {
    if (!isLetter(read.charCodeAt(at))) continue
    const from = at
    while (at < read.length && isLetter(read.charCodeAt(at))) at += 1
    words += 1
    if (at - from > longestSmallWord) continue
    for (const place of languagesOfWord.get(read.slice(from, at)) ?? [])
      counts[place] = (counts[place] ?? 0) + 1
  }
  if (words < fewestWords) return null
  const most = Math.max(...counts)
  const second = Math.max(...counts.filter((_, place) => place !== counts.indexOf(most)))
  return most >= words * 0.2 && most >= 2 * second
    ? (languages[counts.indexOf(most)] ?? null)
    : null
}
