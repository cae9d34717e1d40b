/** What a spot says that was just put in; proofreading asks for something better. */
export const newSpot = 'what belongs here'

const spot = /\[\[([^[\]<>]{1,200})\]\]/g

/** As students would read a spot until it is filled in: `[room and hours]`. */
const unfilled = (prompt: string): string => `[${prompt.trim()}]`

/** What the spots within sentences of a text say until they are filled in, in order: `[[room and hours]]` says `[room and hours]`. */
export const spotsIn = (text: string): string[] =>
  [...text.matchAll(spot)].flatMap(([, prompt = '']) =>
    prompt.trim() === '' ? [] : [unfilled(prompt)],
  )

/** What a note within a sentence says that was just put in. */
export const newNote = 'note: advice to the instructor'

/** Whether a spot is a note to the instructor, who takes it out or writes something in its place: `[[note: if you keep one]]`. */
export const isNote = (prompt: string): boolean => /^\[?\s*note:/i.test(prompt)

/** A text with its spots as they stand until they are filled in. */
export const withSpots = (text: string): string =>
  text.includes('[[')
    ? text.replace(spot, (whole, prompt: string) =>
        prompt.trim() === '' ? whole : unfilled(prompt),
      )
    : text
