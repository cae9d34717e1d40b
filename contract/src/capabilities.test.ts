import { describe, expect, it } from 'vitest'
import {
  capabilities,
  may,
  roles,
  rolesInWords,
  seesWholeCollege,
  whoMay,
  type Capability,
  type Role,
} from './capabilities.ts'
import { routeNamed, routeNames } from './routes/index.ts'

const all = Object.keys(capabilities) as Capability[]

describe('the table of capabilities', () => {
  it('lets an administrator do whatever anybody may', () => {
    for (const capability of all)
      expect([capability, may({ roles: ['administrator'] }, capability)]).toEqual([
        capability,
        true,
      ])
  })
  it('lets a reviewer look, comment and keep an account, and change nothing', () => {
    const theirs = all.filter((capability) => may({ roles: ['reviewer'] }, capability))
    expect(theirs.sort()).toEqual([
      'comment',
      'see college',
      'see courses',
      'see templates',
      'use account',
    ])
  })
  it('lets somebody of several roles do what any of them may, and nobody of none', () => {
    for (const one of roles)
      for (const other of roles)
        for (const capability of all)
          expect(may({ roles: [one, other] }, capability)).toBe(
            may({ roles: [one] }, capability) || may({ roles: [other] }, capability),
          )
    for (const capability of all) expect(may({ roles: [] }, capability)).toBe(false)
  })
  it('shows the whole college to whom no department is named, and to administrators', () => {
    const sees = (role: Role, departments: string[] = []) =>
      seesWholeCollege({ roles: [role], departments })
    expect(roles.filter((role) => sees(role))).toEqual(['designer', 'reviewer', 'administrator'])
    expect(roles.filter((role) => sees(role, ['NAV']))).toEqual(['administrator'])
    expect(seesWholeCollege({ roles: ['contributor', 'reviewer'], departments: [] })).toBe(true)
  })
  it('says who may, in words', () => {
    expect(whoMay('read audit')).toBe('administrators')
    expect(whoMay('rename')).toBe('designers and administrators')
    expect(rolesInWords(['designer', 'instructor'])).toBe('designer and instructor')
    expect(whoMay('look after course')).toBe('designers, administrators and instructors')
  })
})

describe('routes', () => {
  it('that change something ask for more than looking at something', () => {
    const looking: (Capability | 'anyone')[] = ['see college', 'see courses', 'see templates']
    for (const name of routeNames) {
      const { method, may: capability } = routeNamed(name)
      if (method === 'post') expect([name, looking.includes(capability)]).toEqual([name, false])
    }
  })
  it('that anybody may call without signing in are those of signing in and of health', () => {
    expect(routeNames.filter((name) => routeNamed(name).may === 'anyone').sort()).toEqual([
      'askForAccount',
      'beginOutside',
      'endOutside',
      'health',
      'readLink',
      'signIn',
      'signInWays',
      'useLink',
    ])
  })
})
