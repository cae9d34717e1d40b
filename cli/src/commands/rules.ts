import { rulesDocument } from '@wickerframe/core'
import type { Command } from '../command.ts'
import { exitCode } from '../exitCode.ts'

export const rules: Command = async (_, { out }) => {
  out(`${JSON.stringify(rulesDocument(), null, 2)}\n`)
  return exitCode.fine
}
