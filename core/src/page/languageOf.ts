/** Small words that make up a third of any running text, by language; each stands in one language of the list only. */
const smallWords: Readonly<Record<string, string>> = {
  en: 'the and of to is that it for was with as are this be by have from which you not what were when there their',
  fr: 'les des est dans une que qui pour sur avec sont pas il elle vous nous cette ces aux leur mais où être plus et faut',
  de: 'der und die das ist nicht ein eine mit auf für von dem den zu sich auch wird sind im werden bei nach oder wir',
  es: 'los las una que por para con del está son como más pero sus este esta muy hay cuando donde también y el',
  nb: 'og det som er på ikke med til av har jeg vi skal være eller ved kan den når disse også etter hvor',
}
const languageOfWord = new Map<string, string[]>()
for (const [language, words] of Object.entries(smallWords)) for (const word of words.split(' ')) languageOfWord.set(word, [...(languageOfWord.get(word) ?? []), language])

const fewestWords = 10
const kept = new Map<string, string | null>()
const mostKept = 20_000

/**
 * The language of a running text, as a two-letter tag, where its small words leave no doubt; null where they do, or where
 * it is shorter than ten words. Told from function words: common practice, no source.
 */
export const languageOf = (text: string): string | null => {
  let language = kept.get(text)
  if (language === undefined) {
    if (kept.size >= mostKept) kept.clear()
    kept.set(text, (language = tellLanguage(text)))
  }
  return language
}

const tellLanguage = (text: string): string | null => {
  const words = text.slice(0, 2000).toLowerCase().match(/\p{L}+/gu) ?? []
  if (words.length < fewestWords) return null
  const counts = new Map<string, number>()
  for (const word of words) for (const language of languageOfWord.get(word) ?? []) counts.set(language, (counts.get(language) ?? 0) + 1)
  const [best, second] = [...counts].sort((a, b) => b[1] - a[1])
  return best && best[1] >= words.length * 0.2 && best[1] >= 2 * (second?.[1] ?? 0) ? best[0] : null
}
