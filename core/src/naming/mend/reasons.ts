import type { FieldName } from '../fields.ts'

/** Why a name was mended as it was, or why it was not: a code with its values; the words are in `reasonWords`. */
export type Reason =
  | { code: 'shortened' | 'mistyped'; field: FieldName | null }
  | { code: 'supplied'; field: FieldName; text: string }
  | { code: 'wrong'; field: FieldName; said: string; expected: string }
  | { code: 'unlabelled'; field: FieldName }
  | { code: 'another-stretch'; field: FieldName }
  | { code: 'own-words-kept'; text: string }
  | {
      code:
        | 'own-words-joined'
        | 'no-own-words'
        | 'no-such-place'
        | 'several-places'
        | 'nothing-recognised'
        | 'would-not-read'
        | 'too-long'
        | 'stray-marks'
        | 'written-otherwise'
    }
  | { code: 'left-out'; what: 'copy' | 'class-section' | 'not-asked' | 'words'; text: string }
  | { code: 'another-course' | 'another-kind' | 'another-place'; text: string }

const ofSeveral: ReadonlySet<FieldName> = new Set(['dates', 'weeks', 'minutes', 'points'])
const nounOf = (field: FieldName): string => (field === 'classSection' ? 'class section' : field)
/** A field as the subject of a sentence, with the verb that goes with it: `its dates are`, `its week is`. */
const its = (field: FieldName, verb: { one: string; several: string }): string =>
  `its ${nounOf(field)} ${ofSeveral.has(field) ? verb.several : verb.one}`
const is = { one: 'is', several: 'are' }

/** A reason in words, to stand after a name. */
export const reasonWords = (reason: Reason): string => {
  switch (reason.code) {
    case 'shortened':
      return reason.field
        ? `${its(reason.field, is)} written short`
        : 'a word of the format is written short'
    case 'mistyped':
      return reason.field ? `${its(reason.field, is)} mistyped` : 'a word of the format is mistyped'
    case 'supplied':
      return `${its(reason.field, is)} not in the name; here: ${reason.text}`
    case 'wrong':
      return `${its(reason.field, { one: 'says', several: 'say' })} ${reason.said} where ${reason.expected} is expected`
    case 'unlabelled':
      return `${its(reason.field, { one: 'stands', several: 'stand' })} without a word beside`
    case 'another-stretch':
      return `another word stands for the ${nounOf(reason.field)}`
    case 'own-words-kept':
      return `“${reason.text}” is kept as it is`
    case 'own-words-joined':
      return 'the words that are kept stood apart'
    case 'no-own-words':
      return 'no words of the instructor’s own are in it'
    case 'no-such-place':
      return 'which place it belongs to cannot be told'
    case 'several-places':
      return 'it fits more than one place'
    case 'nothing-recognised':
      return 'nothing in it is recognised'
    case 'would-not-read':
      return 'written by the format, its fields could not be told apart'
    case 'too-long':
      return 'it is longer than 2,000 characters'
    case 'stray-marks':
      return 'it carries stray marks, which may mean something'
    case 'written-otherwise':
      return 'the same is said in another form'
    case 'left-out':
      return reason.what === 'copy'
        ? `“${reason.text}” is left over from copying`
        : reason.what === 'class-section'
          ? `“${reason.text}” is a class section, and the course has several`
          : reason.what === 'not-asked'
            ? `the format does not ask for “${reason.text}”`
            : `“${reason.text}” has no place in the format`
    case 'another-course':
      return `it speaks of another course, ${reason.text}`
    case 'another-kind':
      return `it calls itself something else: ${reason.text}`
    case 'another-place':
      return `it seems to belong to another place: ${reason.text}`
  }
}
