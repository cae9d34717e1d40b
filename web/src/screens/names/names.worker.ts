/** Judges long lists of names away from the page, a stretch at a time, so that typing is never held up. */
import {
  inferFormats,
  judgeName,
  parseFormat,
  reasonWords,
  type NameContext,
  type NamingFormat,
} from '@wickerframe/core'
import type { Ask, Judged, ListedName, Tell } from './protocol.ts'

const stretch = 250

let list = 0
let names: readonly ListedName[] = []
let job = 0

const tell = (tell: Tell) => self.postMessage(tell)

const judgeOne = (format: NamingFormat, listed: ListedName, anywhere: NameContext): Judged => {
  const context = listed.values
    ? {
        places: [listed.values],
        near: listed.near ?? anywhere.near,
        classSections: listed.classSections ?? [],
      }
    : anywhere
  const { verdict, mended, confidence, reasons } = judgeName(format, listed.name, context)
  return { verdict, mended, confidence, reasons: reasons.map(reasonWords) }
}

/** Lets messages in between stretches: a newer job ends this one. */
const breathe = () => new Promise((resolve) => setTimeout(resolve, 0))

const judgeAll = async (
  mine: number,
  format: NamingFormat,
  anywhere: NameContext,
): Promise<void> => {
  if (names.length === 0) tell({ tell: 'judged', job: mine, from: 0, judged: [], done: true })
  for (let from = 0; from < names.length; from += stretch) {
    const judged = names
      .slice(from, from + stretch)
      .map((listed) => judgeOne(format, listed, anywhere))
    tell({ tell: 'judged', job: mine, from, judged, done: from + stretch >= names.length })
    await breathe()
    if (job !== mine) return
  }
}

self.addEventListener('message', ({ data }: MessageEvent<Ask>) => {
  if (data.ask === 'list') {
    list = data.list
    names = data.names
    job = -1
    tell({
      tell: 'inferred',
      list,
      formats: inferFormats(
        names.map(({ name }) => name),
        names[0]?.near,
      ),
    })
    return
  }
  if (data.list !== list) return
  job = data.job
  const parsed = parseFormat(data.format)
  if (parsed.ok)
    void judgeAll(data.job, parsed.value, {
      places: data.places,
      near: data.near,
      classSections: data.classSections,
    })
})
