import type { ExpectedPart } from '../expand/index.ts'

/** HTML with the target of each link to a part instance written anew. */
export const withLinks = (html: string, to: (instance: string) => string): string =>
  html.includes('href="ref:')
    ? html.replace(/href="ref:([^"]+)"/g, (_, instance: string) => `href="${to(instance)}"`)
    : html

/** The part instances that HTML leads to. */
export const instancesIn = (html: string): string[] =>
  html.includes('href="ref:')
    ? [...html.matchAll(/href="ref:([^"]+)"/g)].map(([, instance = '']) => instance)
    : []

/** A link to a part as it is kept with a base: by the part and its number, so that the same block has the same HTML in every course. */
export const keptRef = (instance: string, partOf: ReadonlyMap<string, ExpectedPart>): string => {
  const part = partOf.get(instance)
  return `ref:${part ? (part.repetition === null ? part.key : `${part.key}@${part.repetitionNumber}`) : instance}`
}
