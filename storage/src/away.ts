/**
 * Codes of a server that cannot be reached, is stopping, or answers no statement: a node of a cluster that is not part of it
 * refuses with 1047 (ER_UNKNOWN_COM_ERROR), a read-only one with 1290 or 1836.
 */
const away = new Set([
  'ECONNREFUSED',
  'ECONNRESET',
  'EPIPE',
  'ETIMEDOUT',
  'EHOSTUNREACH',
  'ENOTFOUND',
  'PROTOCOL_CONNECTION_LOST',
  'PROTOCOL_SEQUENCE_TIMEOUT',
  'PROTOCOL_ENQUEUE_AFTER_FATAL_ERROR',
  'ER_CON_COUNT_ERROR',
  'ER_TOO_MANY_USER_CONNECTIONS',
  'ER_SERVER_SHUTDOWN',
  'ER_NORMAL_SHUTDOWN',
  'ER_CONNECTION_KILLED',
  'ER_UNKNOWN_COM_ERROR',
  'ER_OPTION_PREVENTS_STATEMENT',
  'ER_READ_ONLY_MODE',
])

/** Codes of a server that answers and finds no room on its disk for what is to be written, or for a sort. */
const full = new Set([
  'ER_DISK_FULL',
  'ER_RECORD_FILE_FULL',
  'ER_ERROR_ON_WRITE',
  'ER_TEMP_FILE_WRITE_FAILURE',
])

/** Why a database does nothing that is asked of it, though nothing is wrong with what was asked. */
export type DatabaseTrouble = 'away' | 'full'

/** What a failure says of the database as a whole; null where it refuses just this. */
export const databaseTrouble = (cause: unknown): DatabaseTrouble | null => {
  if (!(cause instanceof Error)) return null
  const code = 'code' in cause && typeof cause.code === 'string' ? cause.code : ''
  if (full.has(code)) return 'full'
  if (away.has(code) || /closed state|Pool is closed/.test(cause.message)) return 'away'
  return 'errors' in cause && Array.isArray(cause.errors)
    ? (cause.errors.map(databaseTrouble).find((trouble) => trouble !== null) ?? null)
    : null
}
