import { describe, expect, it } from 'vitest'
import type { Change } from './change/change.ts'
import { definedChanges } from './change/kinds.ts'
import { changeInBrief } from './changeInBrief.ts'

const item = (fields: Extract<Change, { change: 'set-item' }>['fields']): string =>
  changeInBrief({ change: 'set-item', id: 'i', fields })

describe('a change in brief', () => {
  it('says which way somebody would be shown or hidden something', () => {
    expect([item({ published: true }), item({ published: false })]).toEqual(['show it', 'hide it'])
    expect(changeInBrief({ change: 'set-course', published: true })).toBe('show it')
  })
  it('names the field it sets', () => {
    expect([item({ name: 'Week 2' }), item({ dueAt: null }), item({ html: '<p>A</p>' })]).toEqual([
      'rename it',
      'set the due date',
      'put the text right',
    ])
    expect(changeInBrief({ change: 'set-module', id: 'm', fields: { name: 'Week 2' } })).toBe(
      'rename it',
    )
    expect(changeInBrief({ change: 'set-course', timeZone: 'America/Halifax' })).toBe(
      'set the time zone',
    )
  })
  it('has words for every kind of change, and for one that sets nothing', () => {
    expect(item({})).toBe('put it right')
    for (const { change } of definedChanges)
      expect(changeInBrief({ change, fields: {} } as unknown as Change)).toMatch(/^[a-z ]{4,24}$/)
  })
})
