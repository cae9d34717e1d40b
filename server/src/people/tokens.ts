import { createHash, randomBytes } from 'node:crypto'

/** A secret that nobody can guess, as it may stand in an address. */
export const newToken = (): string => randomBytes(32).toString('base64url')
/** Tokens are kept as their SHA-256, so that who reads the database cannot use them. */
export const hashOf = (token: string): string => createHash('sha256').update(token).digest('hex')
