import type { CookieOptions, Request, Response } from 'express'

/** On TLS the browser itself holds a cookie so named to this host, this path and TLS (RFC 6265bis, 4.1.3.2). */
const cookieName = (name: string, secure: boolean): string =>
  `${secure ? '__Host-' : ''}wickerframe-${name}`
const cookieOptions = (secure: boolean): CookieOptions => ({
  httpOnly: true,
  sameSite: 'strict',
  secure,
  path: '/',
})
/** Whoever signs in elsewhere is back within so long. */
const outsideMilliseconds = 10 * 60 * 1000
const deviceMilliseconds = 180 * 24 * 3600 * 1000

/** What a cookie of ours holds in a request; null without it. */
export const cookieIn = (request: Request, name: string, secure: boolean): string | null =>
  (request.get('cookie') ?? '')
    .split(';')
    .map((part) => part.trim().split('='))
    .find(([key]) => key === cookieName(name, secure))?.[1] ?? null

/** Keeps a session’s token in the browser until that is closed. */
export const keepSession = (response: Response, token: string, secure: boolean): void => {
  response.cookie(cookieName('session', secure), token, cookieOptions(secure))
}
export const forgetSession = (response: Response, secure: boolean): void => {
  response.clearCookie(cookieName('session', secure), cookieOptions(secure))
}
/**
 * Keeps what a sign-in elsewhere began with, until the browser comes back: from another site, so that a strict cookie would
 * not be sent.
 */
export const keepOutside = (response: Response, begun: string, secure: boolean): void => {
  response.cookie(cookieName('outside', secure), begun, {
    ...cookieOptions(secure),
    sameSite: 'lax',
    maxAge: outsideMilliseconds,
  })
}
export const forgetOutside = (response: Response, secure: boolean): void => {
  response.clearCookie(cookieName('outside', secure), { ...cookieOptions(secure), sameSite: 'lax' })
}
/** Keeps a device’s token in the browser. */
export const keepDevice = (response: Response, token: string, secure: boolean): void => {
  response.cookie(cookieName('device', secure), token, {
    ...cookieOptions(secure),
    maxAge: deviceMilliseconds,
  })
}
