import { describe, expect, it } from 'vitest'
import { capabilities, may, roles, whoMay, type Capability } from './capabilities.ts'
import { routeNamed, routeNames } from './routes/index.ts'

const all = Object.keys(capabilities) as Capability[]

describe('the table of capabilities', () => {
  it('lets an administrator do whatever anybody may, but what only narrows somebody’s view', () => {
    for (const capability of all)
      expect([capability, may({ role: 'administrator' }, capability)]).toEqual([
        capability,
        capability !== 'see courses of layers',
      ])
  })
  it('lets a reviewer look, comment and keep an account, and change nothing', () => {
    const theirs = all.filter((capability) => may({ role: 'reviewer' }, capability))
    expect(theirs.sort()).toEqual([
      'comment',
      'see college',
      'see courses',
      'see every course',
      'see templates',
      'use account',
    ])
  })
  it('shows everybody their courses by one rule, and one only', () => {
    const ways: Capability[] = ['see every course', 'see courses of layers']
    for (const role of roles)
      expect([role, ways.filter((way) => may({ role }, way)).length]).toEqual([
        role,
        role === 'instructor' ? 0 : 1,
      ])
  })
  it('says who may, in words', () => {
    expect(whoMay('read audit')).toBe('administrators')
    expect(whoMay('rename')).toBe('designers and administrators')
    expect(whoMay('look after course')).toBe('designers, administrators and instructors')
  })
})

describe('routes', () => {
  it('that change something ask for more than looking at something', () => {
    const looking: (Capability | 'anyone')[] = [
      'see college',
      'see courses',
      'see templates',
      'see every course',
    ]
    for (const name of routeNames) {
      const { method, may: capability } = routeNamed(name)
      if (method === 'post') expect([name, looking.includes(capability)]).toEqual([name, false])
    }
  })
  it('that anybody may call without signing in are those of signing in and of health', () => {
    expect(routeNames.filter((name) => routeNamed(name).may === 'anyone').sort()).toEqual([
      'health',
      'signIn',
    ])
  })
})
