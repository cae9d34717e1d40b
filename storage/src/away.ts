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
  'ER_DISK_FULL',
])

/** Whether a failure says that the database is away, rather than that it refuses something. */
export const isDatabaseAway = (cause: unknown): boolean =>
  cause instanceof Error &&
  (('code' in cause && typeof cause.code === 'string' && away.has(cause.code)) ||
    ('errors' in cause && Array.isArray(cause.errors) && cause.errors.some(isDatabaseAway)) ||
    /closed state|Pool is closed/.test(cause.message))
