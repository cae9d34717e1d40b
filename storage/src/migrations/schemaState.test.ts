import { describe, expect, it } from 'vitest'
import { compareRuns, schemaProblem } from './schemaState.ts'

const ours = ['0001-a.sql', '0002-b.sql', '0003-c.sql'].map((name) => ({ name, checksum: name }))
const problemAfter = (ran: Record<string, string>) =>
  schemaProblem(compareRuns(ours, new Map(Object.entries(ran))))

describe('why a program may not work on a schema', () => {
  it.each<[string, Record<string, string>, RegExp]>([
    [
      'a file was changed after it had run',
      { '0001-a.sql': 'another', '0002-b.sql': '0002-b.sql', '0003-c.sql': '0003-c.sql' },
      /0001-a\.sql was changed after it had run/,
    ],
    [
      'a file that has run is gone',
      { '0000-z.sql': 'x', '0001-a.sql': '0001-a.sql' },
      /0000-z\.sql has run and is not there any more/,
    ],
    [
      'a file was put in before one that has run',
      { '0001-a.sql': '0001-a.sql', '0003-c.sql': '0003-c.sql' },
      /0002-b\.sql has not run, though one after it has/,
    ],
    [
      'a newer program made it',
      { ...Object.fromEntries(ours.map(({ name }) => [name, name])), '0009-z.sql': 'x' },
      /another program’s: it has 0009-z\.sql/,
    ],
    [
      'one is still to be run',
      { '0001-a.sql': '0001-a.sql' },
      /lacks 2 migrations, the first 0002/,
    ],
    ['nothing has run', {}, /lacks 3 migrations, the first 0001/],
  ])('%s', (_, ran, message) => {
    expect(problemAfter(ran)).toMatch(message)
  })
  it('none, where all have run as they are', () => {
    expect(problemAfter(Object.fromEntries(ours.map(({ name }) => [name, name])))).toBeNull()
  })
})
