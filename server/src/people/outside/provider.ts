import * as openid from 'openid-client'

export interface OutsideSettings {
  issuer: string
  clientId: string
  clientSecret: string
  /** What people call it: `Kestrel Sound sign-in`. */
  name: string
  /** Which claim names what somebody is, and which of its values give which role. */
  rolesClaim: string
  roleOf: Readonly<Record<string, string>>
  /** Whether the address counts although the provider does not say that it was verified. */
  trustEmail: boolean
}

/** What must come back from the browser that a sign-in began in. */
export interface Begun {
  state: string
  nonce: string
  verifier: string
}

/** What a provider vouches for. */
export interface Vouched {
  issuer: string
  subject: string
  /** In lower case; null where it names none, or does not vouch for it. */
  email: string | null
  name: string | null
  /** Values of the claim that roles are read from. */
  groups: readonly string[]
}

/** Why nobody was signed in: it does not answer, its answer does not hold, or it was refused there. */
export type OutsideFault = 'away' | 'wrong-answer' | 'refused-there'
export class OutsideFailed extends Error {
  readonly fault: OutsideFault
  constructor(fault: OutsideFault, cause: unknown) {
    super(`the identity provider: ${fault}`, { cause })
    this.fault = fault
  }
}

/** The provider is waited for so long; whoever signs in sits before the screen. */
const patienceSeconds = 8
/** What it says of itself is asked for again after so long. */
const knownMilliseconds = 3_600_000
const scope = 'openid email profile'

export interface OutsideProvider {
  readonly settings: OutsideSettings
  /** Where the browser is sent to, and what it must bring back. @throws OutsideFailed */
  begin: (redirectUri: string) => Promise<{ address: string; begun: Begun }>
  /** What the provider vouches for, by the address that the browser came back to. @throws OutsideFailed */
  end: (address: URL, begun: Begun) => Promise<Vouched>
}

const isLoopback = (url: URL): boolean => /^(localhost|127(\.\d+){3}|\[::1\])$/.test(url.hostname)

const textOf = (claim: unknown): string | null =>
  typeof claim === 'string' && claim.trim() !== '' ? claim.trim() : null
const listOf = (claim: unknown): string[] =>
  (Array.isArray(claim) ? claim : [claim]).filter((value) => typeof value === 'string')

/**
 * Signs people in with an identity provider: OpenID Connect Core 1.0, authorization code flow with PKCE (RFC 7636), state and
 * nonce; the signature of its token is held against its keys.
 */
export const outsideProvider = (settings: OutsideSettings): OutsideProvider => {
  let known: { config: openid.Configuration; at: number } | null = null
  let asking: Promise<openid.Configuration> | null = null
  /** However many sign in at once, the provider is asked once. */
  const configuration = (): Promise<openid.Configuration> => {
    if (known && Date.now() - known.at < knownMilliseconds) return Promise.resolve(known.config)
    asking ??= ask().finally(() => {
      asking = null
    })
    return asking
  }
  const ask = async (): Promise<openid.Configuration> => {
    const issuer = new URL(settings.issuer)
    try {
      const config = await openid.discovery(
        issuer,
        settings.clientId,
        settings.clientSecret,
        undefined,
        {
          timeout: patienceSeconds,
          execute: [
            openid.enableNonRepudiationChecks,
            ...(isLoopback(issuer) ? [openid.allowInsecureRequests] : []),
          ],
        },
      )
      known = { config, at: Date.now() }
      return config
    } catch (cause) {
      throw new OutsideFailed(faultOf(cause), cause)
    }
  }
  return {
    settings,
    begin: async (redirectUri) => {
      const config = await configuration()
      const verifier = openid.randomPKCECodeVerifier()
      const begun = { state: openid.randomState(), nonce: openid.randomNonce(), verifier }
      const address = openid.buildAuthorizationUrl(config, {
        redirect_uri: redirectUri,
        scope,
        state: begun.state,
        nonce: begun.nonce,
        code_challenge: await openid.calculatePKCECodeChallenge(verifier),
        code_challenge_method: 'S256',
      })
      return { address: address.href, begun }
    },
    end: async (address, { state, nonce, verifier }) => {
      const config = await configuration()
      try {
        const tokens = await openid.authorizationCodeGrant(config, address, {
          expectedState: state,
          expectedNonce: nonce,
          pkceCodeVerifier: verifier,
          idTokenExpected: true,
        })
        const claims = tokens.claims()
        // OpenID Connect Core 1.0, 2: a subject of at most 255 characters; an empty one would be everybody’s.
        if (!claims || claims.sub === '' || claims.sub.length > 255)
          throw new Error('the token names nobody')
        const vouches = claims['email_verified'] === true || settings.trustEmail
        return {
          issuer: claims.iss,
          subject: claims.sub,
          email: vouches ? (textOf(claims['email'])?.toLowerCase() ?? null) : null,
          name: textOf(claims['name']),
          groups: listOf(claims[settings.rolesClaim]),
        }
      } catch (cause) {
        // Its keys may have changed: it is asked what it says of itself at the next try.
        known = null
        throw new OutsideFailed(faultOf(cause), cause)
      }
    },
  }
}

/** What an error of the library means to whoever signs in. */
const faultOf = (cause: unknown): OutsideFault => {
  if (cause instanceof openid.AuthorizationResponseError) return 'refused-there'
  const code = cause instanceof Error && 'code' in cause ? cause.code : null
  const isNetwork =
    cause instanceof TypeError ||
    code === 'OAUTH_TIMEOUT' ||
    (cause instanceof Error && (cause.name === 'TimeoutError' || cause.name === 'AbortError'))
  return isNetwork ? 'away' : 'wrong-answer'
}
