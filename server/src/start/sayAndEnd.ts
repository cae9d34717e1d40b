import { UnusableDatabase } from './openDatabase.ts'
import { WrongSettings } from './settings.ts'

/** Runs a program; what it cannot start with is told as a sentence, without a stack, and ends it with 1. */
export const orSayAndEnd = async (program: () => Promise<void>): Promise<void> => {
  try {
    await program()
  } catch (cause) {
    const expected =
      cause instanceof WrongSettings ||
      cause instanceof UnusableDatabase ||
      (cause instanceof Error && 'code' in cause && cause.code === 'EADDRINUSE')
    console.error(expected ? cause.message : cause)
    process.exit(1)
  }
}
