import { dictionary } from '@zxcvbn-ts/language-common'
import { leastPasswordLength } from '@wickerframe/contract'
import { HttpProblem } from '../http/problem.ts'

/** Letters and digits of a text, in small letters: what is common is common with any sign between. */
const bare = (text: string): string => {
  const folded = text.normalize('NFKC').toLowerCase()
  return folded.replace(/[^\p{L}\p{N}]/gu, '') || folded
}

const common = new Set((dictionary['passwords-common'] as string[]).map(bare))

/** What one types when one does not think: rows of the keyboard, digits, letters. */
const runs = [
  '0123456789',
  'abcdefghijklmnopqrstuvwxyz',
  'qwertyuiopasdfghjklzxcvbnm',
  '1qaz2wsx3edc4rfv5tgb6yhn7ujm8ik',
].flatMap((run) => [run + run + run, [...(run + run + run)].reverse().join('')])

/** The piece that a text repeats from end to end; the text itself where it repeats none. */
const repeated = (text: string): string => {
  for (let length = 1; length <= text.length / 2; length++) {
    const piece = text.slice(0, length)
    if (piece.repeat(Math.ceil(text.length / length)).startsWith(text)) return piece
  }
  return text
}

/** Whether a text is a common password, with figures before or behind it, or said several times. */
const isCommon = (text: string): boolean => {
  const piece = repeated(text)
  const worded = piece.replace(/^\p{N}+|\p{N}+$/gu, '')
  return common.has(piece) || common.has(worded) || common.has(text) || piece.length < 4
}

/**
 * Why a password is not taken, in words; null where it is. By NIST SP 800-63B-4, 3.1.1.2 (from memory): its length, a list of
 * common ones, what repeats or runs on, and words of this very account and service; no rules of which signs it must have.
 */
export const passwordProblem = (
  password: string,
  { email, name }: { email: string; name: string },
): string | null => {
  if ([...password].length < leastPasswordLength)
    return `the password is too short: at least ${leastPasswordLength} characters, a sentence of several words for example`
  const text = bare(password)
  if (isCommon(text) || runs.some((run) => run.includes(text)))
    return 'that password is among the first that are tried; take several words that do not belong together'
  const own = [email, name, 'wickerframe', ...email.split(/[^\p{L}\p{N}]/u), ...name.split(/\s/)]
    .map(bare)
    .filter((word) => word.length > 2)
    .sort((one, other) => other.length - one.length)
    .reduce((left, word) => left.replaceAll(word, ''), text)
  if (own.length < 6 && own.length < text.length)
    return 'that password is hardly more than your name, your address or the name of this program'
  return null
}

/** @throws HttpProblem 400 that says why a password is not taken */
export const mustBeGood = (password: string, person: { email: string; name: string }): void => {
  const problem = passwordProblem(password, person)
  if (problem !== null) throw new HttpProblem(400, 'weak-password', problem)
}

/** Where passwords are not kept here. */
export const noLocalAccounts = () =>
  new HttpProblem(
    403,
    'no-local-accounts',
    'one signs in here with the institution’s own sign-in, without a password of this program',
  )
