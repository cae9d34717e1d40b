/**
 * What modules and items are called, and how people abbreviate it, in English, French and Spanish; folded, without
 * accents. Common practice, no source. A line begins with the concept's own word.
 */
/** Stretches of a course: one may be said for another. */
const stretches = [
  'week weeks wk wks wek w semaine semaines semana semanas sem s',
  'unit units un u unite unites unidad unidades',
  'day days d jour jours j dia dias',
  'module modules mod mods mdl m modulo modulos',
  'chapter chapters ch chap chpt chapitre capitulo cap',
  'lesson lessons lsn les l lecon lecons leccion',
  'session sessions sess ses seance sesion',
  'part parts pt partie parte',
  'topic topics theme tema',
]

/** Kinds of items: one is never another. */
const kinds = [
  'quiz quizzes quizz q qz prueba cuestionario',
  'assignment assignments assign assgn asgmt asgn asmt a hw homework devoir tarea',
  'discussion discussions disc db forum foro discusion d',
  'lab labs labo laboratory laboratoire laboratorio',
  'exam exams exm examen examination',
  'project projects proj prj projet proyecto',
  'workshop workshops wkshp wksp atelier taller',
  'reading readings rdg read lectura',
  'lecture lectures lect lec',
  'drill drills',
  'essay essays',
  'survey surveys',
  'tutorial tutorials',
  'seminar seminars',
]

/** Other words of formats, with the forms that are more than abbreviations. */
const others = [
  'overview apercu resumen',
  'notes nts notas',
  'checklist',
  'syllabus',
  'home',
  'minutes minute mins min minutos',
  'points point pts pt puntos',
]

const byWord = new Map<string, Set<string>>()
for (const line of [...stretches, ...kinds, ...others]) {
  const [concept = '', ...words] = line.split(' ')
  for (const word of [concept, ...words])
    byWord.set(word, (byWord.get(word) ?? new Set()).add(concept))
}
const stretchWords = new Set(stretches.map((line) => line.split(' ')[0] ?? ''))
const kindWords = new Set(kinds.map((line) => line.split(' ')[0] ?? ''))
const nothing: ReadonlySet<string> = new Set()

/** What a folded word without accents may be short for: `wk` → week; `d` → day or discussion. */
export const conceptsOf = (word: string): ReadonlySet<string> => byWord.get(word) ?? nothing
export const isStretch = (concept: string): boolean => stretchWords.has(concept)
export const isItemKind = (concept: string): boolean => kindWords.has(concept)
