import { ruleById } from '../rules/index.ts'
import {
  everyObjective,
  homePageKey,
  isModule,
  navigationPlaces,
  partsWithin,
  type Template,
} from '../template/index.ts'

/** What people call what a field names by its key; null where nothing is called by it. */
export type Called = (field: string, key: string) => string | null

const mapOf = <Entry extends { key: string }>(
  entries: readonly Entry[],
  nameOf: (entry: Entry) => string,
): ReadonlyMap<string, string> => new Map(entries.map((entry) => [entry.key, nameOf(entry)]))

/** What people call what a template names by keys. */
export const calledIn = (template: Template): Called => {
  const inModules = partsWithin(template.parts).flatMap((part) => [
    part,
    ...(isModule(part) ? part.exceptions.flatMap(({ add }) => partsWithin(add)) : []),
  ])
  const parts = new Map([[homePageKey, 'the home page'], ...mapOf(inModules, ({ name }) => name)])
  const objectives = mapOf(everyObjective(template), ({ text }) => `“${text}”`)
  const pictures = mapOf(
    template.assets,
    ({ alternativeText, fileName }) => alternativeText || fileName,
  )
  const files = mapOf(template.files, ({ title }) => title)
  const fields: Readonly<Record<string, ReadonlyMap<string, string>>> = {
    part: parts,
    to: new Map([
      ...parts,
      ...[...parts].map(([key, name]) => [`part:${key}`, name] as const),
      ...Object.entries(navigationPlaces).map(
        ([place, words]) => [`place:${place}`, words] as const,
      ),
    ]),
    leaveOut: parts,
    acceptsInstead: parts,
    assesses: objectives,
    serves: objectives,
    rubric: mapOf(template.rubrics, ({ title }) => title),
    image: pictures,
    picture: pictures,
    portrait: pictures,
    file: files,
    files,
    houseText: mapOf(template.houseTexts, ({ title }) => title),
    kept: mapOf(template.keptBlocks, ({ title }) => title),
  }
  return (field, key) =>
    field === 'rule' ? (ruleById(key)?.title ?? null) : (fields[field]?.get(key) ?? null)
}
