import {
  readDocument,
  Template,
  templateFromSentences,
  usualSentences,
  type Facts,
  type Sentences,
} from '@wickerframe/core'

/** Names in another language, for whoever writes a template in it. */
const spanish: readonly (readonly [string, string])[] = [
  ['Week {week} overview', 'Resumen de la semana {week}'],
  ['Week {week} reading', 'Lectura de la semana {week}'],
  ['Week {week} discussion: {topic}', 'Foro {week}: {topic}'],
  ['Assignment {number}: {topic}', 'Tarea {number}: {topic}'],
  ['Week {week} checklist', 'Lista de la semana {week}'],
  ['Week {week} · ', 'Semana {week} · '],
  ['Start here', 'Para empezar'],
  ['Welcome to {code}', 'Bienvenida a {code}'],
  ['Wrapping up', 'Para terminar'],
  ['Looking back', 'Mirada atrás'],
]
/** Numbers that no word stands beside. */
const bare: readonly (readonly [string, string])[] = [
  ['Week {week} · {dates} · {topic}', '{week, 00} / {topic} / {dates}'],
  ['Week {week} overview', '{week, 00} · Overview'],
  ['Week {week} reading', '{week, 00} · Reading'],
  ['Week {week} discussion: {topic}', '{week, 00} · Discussion: {topic}'],
  ['Week {week} checklist', '{week, 00} · Checklist'],
]

const made = (
  answers: Partial<Sentences>,
  words: readonly (readonly [string, string])[] = [],
): Template => {
  const template = templateFromSentences({ ...usualSentences(), ...answers })
  if (!template.ok) throw new Error(JSON.stringify(template.problems))
  const text = words.reduce(
    (all, [from, to]) => all.replaceAll(JSON.stringify(from).slice(1, -1), to),
    JSON.stringify(template.value),
  )
  const read = readDocument(Template, JSON.parse(text))
  if (!read.ok) throw new Error(JSON.stringify(read.problems))
  return read.value
}

/** Templates as another college makes them: weeks, weeks without dates, units, another language, numbers without words. */
export const otherCollege = (): Template[] => [
  made({ ends: true, grading: 'points' }),
  made({ per: 'unit', units: 5, named: 'number-dates-topic' }),
  made({ ends: true }, spanish),
  made({ named: 'number-topic', grading: 'none' }),
  made({ ends: true, pause: false }, bare),
]

const subjects = [
  'Bridges that stand',
  'Wood and its grain',
  'Glass',
  'Clay from the river',
  'Joints without nails',
  'Loads and spans',
  'Stone walls',
  'Roofs against rain',
  'Stairs',
  'Light by day',
  'Warm rooms',
  'Sound in halls',
  'Water in pipes',
  'Old houses mended',
  'Drawings to scale',
  'What it costs',
  'A house from nothing',
]
/** A course of the roster, with the other college's topics, and its units where it has some. */
export const factsThere = (facts: Facts, template: Template, from: number): Facts => {
  const subjectOf = (number: number): string => subjects[(from + number) % subjects.length] ?? ''
  const { units } = template
  return {
    ...facts,
    topics: Object.fromEntries(
      Array.from({ length: facts.weeks }, (_, i) => [i + 1, subjectOf(i)]),
    ),
    ...(units === undefined || units === null
      ? {}
      : {
          units: Array.from({ length: units }, (_, i) => ({
            number: i + 1,
            firstWeek: Math.floor((i * facts.weeks) / units) + 1,
            lastWeek: Math.floor(((i + 1) * facts.weeks) / units),
            title: subjectOf(i),
          })),
        }),
  }
}
