import { peopleAsFacts, type Duty, type Facts } from '@wickerframe/core'
import { catalogue, topicsFor } from './catalogue.ts'
import { instructors } from './people.ts'
import { seededRandom } from './random.ts'
import { terms } from './terms.ts'

/** One line of a roster file: somebody in one class section of one course on the platform. */
export interface RosterRow {
  code: string
  title: string
  term: string
  session: string
  classSection: string
  classSectionKind: 'own' | 'shared'
  instructorEmail: string
  instructorName: string
  duty: '' | Duty
  modality: Facts['modality']
  weeks: number
  platformCourseId: string
  status: 'teaching' | 'preparing' | 'merged' | 'set-aside' | 'cancelled'
}

export const rosterHeader = [
  'code',
  'title',
  'term',
  'session',
  'class section',
  'own or shared',
  'instructor e-mail',
  'instructor name',
  'duty',
  'modality',
  'weeks',
  'platform course id',
  'status',
] as const

/** Who is in a course of the roster besides the one who teaches it, by the place of the course. */
const helpers: Readonly<Record<number, { person: (typeof instructors)[number]; duty: Duty }>> =
  Object.fromEntries(
    (
      [
        [0, 'Okwudili Marsh', 'assistant'],
        [27, 'Siobhan Quarrie', 'instructor'],
        [31, 'Ines Carvalho-Roe', 'assistant'],
      ] as const
    ).flatMap(([index, name, duty]) => {
      const person = instructors.find((one) => one.name === name)
      return person ? [[index, { person, duty }]] : []
    }),
  )

/** The session a course of so many weeks stands in; longer ones take the whole term. */
const sessionOf: Readonly<Record<number, string>> = { 8: 'first-half', 7: 'seven-weeks' }

/**
 * Roster rows of Autumn 2026 for that many courses, seeded. NAV 110 has eight class sections; some courses are shared by
 * several, a few are online or hybrid, some run eight or seven weeks.
 */
export const makeRoster = (courses: number, seed = 2026): RosterRow[] => {
  const random = seededRandom(seed)
  const rows: RosterRow[] = []
  const add = (
    index: number,
    code: string,
    title: string,
    weeks: number,
    sections: string[],
    modality: Facts['modality'],
  ) => {
    const teaching = instructors[(index * 7) % instructors.length] ?? instructors[0]
    if (!teaching) return
    const helping = helpers[index]
    for (const [classSection, person, duty] of [
      ...sections.map((section) => [section, teaching, ''] as const),
      ...(helping ? [[sections[0] ?? '', helping.person, helping.duty] as const] : []),
    ])
      rows.push({
        code,
        title,
        term: 'autumn-2026',
        session: sessionOf[weeks] ?? '',
        classSection,
        classSectionKind: sections.length > 1 ? 'shared' : 'own',
        instructorEmail: person.email,
        instructorName: person.name,
        duty,
        modality,
        weeks,
        platformCourseId: `kc-${1001 + index}`,
        status: 'teaching',
      })
  }
  for (let index = 0; index < courses; index++) {
    const entry = catalogue[index % catalogue.length]
    if (!entry) continue
    const round = Math.floor(index / catalogue.length)
    const section = (n: number) => String(round * 3 + n).padStart(2, '0')
    const modality = index % 9 === 4 ? 'online' : index % 13 === 6 ? 'hybrid' : 'on-campus'
    const shared = round === 0 && random() < 0.35
    const sections =
      entry.code === 'NAV 110' && round === 0
        ? ['01', '02', '03', '04', '05', '06', '07', '08']
        : shared
          ? [section(1), section(2)]
          : [section(1)]
    add(index, entry.code, entry.title, entry.weeks, sections, modality)
  }
  return rows
}

const csvField = (text: string): string =>
  /[",\n]/.test(text) ? `"${text.replaceAll('"', '""')}"` : text

/** Roster rows as a CSV file (RFC 4180). */
export const rosterCsv = (rows: readonly RosterRow[]): string =>
  [
    rosterHeader.join(','),
    ...rows.map((row) =>
      [
        row.code,
        row.title,
        row.term,
        row.session,
        row.classSection,
        row.classSectionKind,
        row.instructorEmail,
        row.instructorName,
        row.duty,
        row.modality,
        String(row.weeks),
        row.platformCourseId,
        row.status,
      ]
        .map(csvField)
        .join(','),
    ),
  ].join('\r\n') + '\r\n'

/** Facts of the demo's courses, one for each course of the roster, in its order. */
export const factsOfRoster = (
  rows: readonly RosterRow[],
): { platformCourseId: string; facts: Facts }[] => {
  const byCourse = new Map<string, RosterRow[]>()
  for (const row of rows)
    byCourse.set(row.platformCourseId, [...(byCourse.get(row.platformCourseId) ?? []), row])
  return [...byCourse].flatMap(([platformCourseId, group]) => {
    const [row] = group
    const term = terms.find((term) => term.code === row?.term)
    if (!row || !term) return []
    return [
      {
        platformCourseId,
        facts: {
          schema: 'wickerframe.facts/1',
          code: row.code,
          title: row.title,
          department: row.code.slice(0, 3),
          modality: row.modality,
          weeks: row.weeks,
          term,
          ...(row.session ? { session: row.session } : {}),
          classSections: [...new Set(group.map(({ classSection }) => classSection))],
          classSectionKind: row.classSectionKind,
          ...peopleAsFacts(
            [...new Map(group.map((line) => [line.instructorEmail, line])).values()].map(
              ({ instructorName, instructorEmail, duty }) => ({
                name: instructorName,
                email: instructorEmail,
                duty: duty || 'instructor',
              }),
            ),
          ),
          moduleOwners: {},
          topics: topicsFor(row.code, row.weeks),
          answers: {},
        } satisfies Facts,
      },
    ]
  })
}
