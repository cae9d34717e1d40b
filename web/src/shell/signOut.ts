import { ApiError, call } from '../api/client.ts'
import { forgetAnswers } from '../screens/course/fillIn/keptAnswers.ts'
import { forgetSteps } from '../screens/workbench/keptSteps.ts'

/**
 * Signs out, here or on every device, and leaves the page with all that it holds: who signs in next in this tab finds nothing.
 * @returns why somebody is signed in still; null: nobody is
 */
export const signOut = async (everywhere: boolean, leave: () => void): Promise<string | null> => {
  try {
    await call('signOut', { body: { everywhere } })
  } catch (cause) {
    // Of a session that ended by itself nothing is left to end.
    if (!(cause instanceof ApiError && cause.body.status === 401))
      return cause instanceof Error ? cause.message : String(cause)
  }
  forgetSteps()
  forgetAnswers()
  leave()
  return null
}
