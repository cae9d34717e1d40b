import { generateKeyPairSync, randomBytes } from 'node:crypto'
import { createServer } from 'node:http'
import type { IncomingMessage, ServerResponse } from 'node:http'
import { Provider } from 'oidc-provider'

/** Somebody whom the provider knows. */
export interface KnownPerson {
  email: string
  name: string
  /** What its claim `groups` says. */
  groups: readonly string[]
  /** Whether it vouches for the address. */
  emailVerified?: boolean
}

export interface IdentityProviderSettings {
  /** On loopback only; 0: any that is free. */
  port: number
  clientId: string
  clientSecret: string
  redirectUri: string
  people: readonly KnownPerson[]
}

export interface IdentityProvider {
  issuer: string
  stop: () => Promise<void>
}

const escaped = (text: string): string =>
  text.replace(/[&<>"]/g, (sign) => `&#${sign.codePointAt(0) ?? 0};`)

const page = (body: string): string =>
  `<!doctype html><html lang="en"><meta charset="utf-8"><title>Practice identity provider</title>
<style>body{font:16px/1.5 sans-serif;max-width:36rem;margin:4rem auto;padding:0 1rem}button{display:block;width:100%;margin:.3rem 0;padding:.5rem;text-align:left;font:inherit}</style>
<h1>Practice identity provider</h1>${body}</html>`

const bodyOf = async (request: IncomingMessage): Promise<URLSearchParams> => {
  let text = ''
  for await (const chunk of request) text += String(chunk)
  return new URLSearchParams(text)
}

/**
 * A small identity provider (OpenID Connect, authorization code flow) for development and tests: whoever comes picks who they
 * are, without a password. It listens on loopback only and keeps everything in memory.
 */
export const startIdentityProvider = async ({
  port,
  clientId,
  clientSecret,
  redirectUri,
  people,
}: IdentityProviderSettings): Promise<IdentityProvider> => {
  const server = createServer()
  await new Promise<void>((resolve, reject) => {
    server.once('error', reject)
    server.listen(port, '127.0.0.1', resolve)
  })
  const bound = server.address()
  const issuer = `http://127.0.0.1:${typeof bound === 'object' && bound ? bound.port : port}`
  const byEmail = new Map(people.map((person) => [person.email, person]))
  const provider = new Provider(issuer, {
    clients: [
      {
        client_id: clientId,
        client_secret: clientSecret,
        redirect_uris: [redirectUri],
        grant_types: ['authorization_code'],
        response_types: ['code'],
      },
    ],
    jwks: {
      keys: [
        {
          ...generateKeyPairSync('rsa', { modulusLength: 2048 }).privateKey.export({
            format: 'jwk',
          }),
          use: 'sig',
          alg: 'RS256',
        },
      ],
    },
    cookies: { keys: [randomBytes(32).toString('hex')] },
    claims: { openid: ['sub'], email: ['email', 'email_verified'], profile: ['name', 'groups'] },
    // What is asked for stands in the ID token itself.
    conformIdTokenClaims: false,
    features: { devInteractions: { enabled: false } },
    interactions: { url: (_, interaction) => `/pick/${interaction.uid}` },
    findAccount: (_, email) => {
      const person = byEmail.get(email)
      return (
        person && {
          accountId: email,
          claims: () => ({
            sub: email,
            email,
            email_verified: person.emailVerified ?? true,
            name: person.name,
            groups: person.groups,
          }),
        }
      )
    },
    ttl: { Interaction: 600, Session: 3600, Grant: 3600, AccessToken: 600, IdToken: 600 },
    renderError: (ctx, { error, error_description }) => {
      ctx.type = 'html'
      ctx.body = page(`<p>${escaped(`${error}: ${error_description ?? ''}`)}</p>`)
    },
  })
  const answer = provider.callback()

  const pick = async (request: IncomingMessage, response: ServerResponse): Promise<void> => {
    const interaction = await provider.interactionDetails(request, response)
    if (request.method === 'POST') {
      const accountId = (await bodyOf(request)).get('who') ?? ''
      const grant = new provider.Grant({ accountId, clientId })
      grant.addOIDCScope('openid email profile')
      const grantId = await grant.save()
      await provider.interactionFinished(
        request,
        response,
        byEmail.has(accountId)
          ? { login: { accountId }, consent: { grantId } }
          : { error: 'access_denied', error_description: 'nobody was picked' },
      )
      return
    }
    response.setHeader('content-type', 'text/html; charset=utf-8')
    response.end(
      page(`<p>Who are you? ${escaped(String(interaction.params['client_id']))} asks.</p><form method="post">
${people.map(({ email, name, groups }) => `<button name="who" value="${escaped(email)}">${escaped(name)} <small>${escaped([email, ...groups].join(', '))}</small></button>`).join('\n')}
<button name="who" value="">None of them</button></form>`),
    )
  }
  server.on('request', (request, response) => {
    if (!request.url?.startsWith('/pick/')) return void answer(request, response)
    pick(request, response).catch(() => {
      response.statusCode = 400
      response.end(page('<p>That sign-in is over; begin anew.</p>'))
    })
  })
  return {
    issuer,
    stop: () =>
      new Promise((resolve) => {
        server.closeAllConnections()
        server.close(() => resolve())
      }),
  }
}
