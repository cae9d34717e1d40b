import { afterAll, beforeAll, expect, it } from 'vitest'
import { startPrivateCollege, type PrivateCollege } from '../testing/privateCollege.testing.ts'
import { peopleCommand } from './command.ts'

let college: PrivateCollege
beforeAll(async () => {
  college = await startPrivateCollege()
})
afterAll(() => college.stop())

const run = (...given: string[]) => peopleCommand(college.pool, given, college.address)
const tokenIn = (said: string): string => /welcome#([\w-]+)$/.exec(said)?.[1] ?? ''
const take = (token: string) =>
  college.stranger.post('/api/links/use', { token, password: 'a kettle under the pier' })

it('the first of a new college comes in as an administrator, by what the command prints', async () => {
  const said = await run('invite', 'Petra@Kestrelsound.example', '--name', 'Petra')
  expect(said).toMatch(/^Petra \(administrator\) comes in by this link, once, until 2\d{3}-/)
  const { body } = await take(tokenIn(said))
  expect(body).toMatchObject({ email: 'petra@kestrelsound.example', roles: ['administrator'] })
})

it('who is known keeps what they may do, and sets another password', async () => {
  const designer = await college.person('designer')
  const said = await run('invite', designer.email)
  expect((await take(tokenIn(said))).body).toMatchObject({
    name: designer.name,
    roles: ['designer'],
  })
  const more = await run('invite', designer.email, '--role', 'administrator', '--department', 'NAV')
  expect((await take(tokenIn(more))).body).toMatchObject({
    roles: ['designer', 'administrator'],
    departments: ['NAV'],
  })
})

it.each([
  [[], 'What is to be done is not clear.'],
  [['remove', 'a@x.example'], 'What is to be done is not clear.'],
  [['invite'], 'What is to be done is not clear.'],
  [['invite', 'nobody'], 'email: an e-mail address'],
  [['invite', 'a@x.example', '--role', 'king'], 'role.0: '],
  [['invite', 'a@x.example', '--rank', 'king'], '--rank'],
])('what it does not understand it says, with what it does: %j', async (given, why) => {
  const refused = await run(...given).catch((cause: unknown) => String(cause))
  expect(refused).toContain(why)
  expect(refused).toContain('npm run people -- invite ADDRESS')
})
