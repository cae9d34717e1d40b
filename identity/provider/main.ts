import { instructors, signIns } from '@wickerframe/demo'
import { startIdentityProvider } from './provider.ts'

// The practice identity provider: for demonstrations and tests, on loopback, never in production.
const wanted = (name: string): string => {
  const value = process.env[name]
  if (!value) throw new Error(`${name} is not set`)
  return value
}
const known = new Set(signIns.map(({ email }) => email))
const provider = await startIdentityProvider({
  port: Number(wanted('IDENTITY_PORT')),
  clientId: wanted('OIDC_CLIENT_ID'),
  clientSecret: wanted('OIDC_CLIENT_SECRET'),
  redirectUri: wanted('IDENTITY_REDIRECT'),
  people: [
    ...signIns.map(({ email, name }) => ({ email, name, groups: [] })),
    ...instructors
      .filter(({ email }) => !known.has(email))
      .map((person) => ({ ...person, groups: ['faculty'] })),
    { email: 'oyun.tselmeg@kestrelsound.example', name: 'Oyun Tselmeg', groups: ['course-design'] },
    { email: 'guest@kestrelsound.example', name: 'A guest', groups: [] },
  ],
})
console.log(JSON.stringify({ listening: Number(new URL(provider.issuer).port) }))
const stop = () => void provider.stop().then(() => process.exit(0))
process.on('SIGTERM', stop)
process.on('SIGINT', stop)
