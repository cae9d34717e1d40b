import { describe, expect, it } from 'vitest'
import { databaseTrouble } from './away.ts'

const failure = (code: string, message = code) => Object.assign(new Error(message), { code })

describe('what a failure says of the database', () => {
  // Names and meanings of codes: MariaDB's list of error codes, and mysql2's own, from memory.
  it.each([
    ['a port where nobody listens', failure('ECONNREFUSED'), 'away'],
    ['a connection that broke', failure('PROTOCOL_CONNECTION_LOST'), 'away'],
    ['a node that is not part of its cluster (1047)', failure('ER_UNKNOWN_COM_ERROR'), 'away'],
    ['a table that finds no room (1114)', failure('ER_RECORD_FILE_FULL'), 'full'],
    ['a sort that finds no room (1021)', failure('ER_DISK_FULL'), 'full'],
    ['a name that is taken', failure('ER_DUP_ENTRY'), null],
    ['two that wait for each other', failure('ER_LOCK_DEADLOCK'), null],
    ['a pool that was closed', new Error('Pool is closed.'), 'away'],
    ['no failure of a program', 'ECONNREFUSED', null],
  ])('%s', (_, cause, trouble) => {
    expect(databaseTrouble(cause)).toBe(trouble)
  })

  it('is found among failures that come together, as for a name with several addresses', () => {
    const both = new AggregateError([failure('ECONNREFUSED'), failure('ECONNREFUSED')])
    expect(databaseTrouble(both)).toBe('away')
    expect(databaseTrouble(new AggregateError([failure('ER_DUP_ENTRY')]))).toBeNull()
  })
})
