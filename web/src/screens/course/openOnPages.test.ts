import { expect, it } from 'vitest'
import { everyCourseItem } from '@wickerframe/core'
import { checkedExample } from '../../testing/checked.testing.ts'
import { openOnPages, urgentFirst } from './openOnPages.ts'

it('the page with most open musts stands first, and what is waived or open nowhere changes nothing', () => {
  const { course, result } = checkedExample(({ item }) => {
    const picture = '<p><img src="/chart.png"></p>'
    item('week-overview', 6).html += picture
    item('week-overview', 3).html += picture + picture
    item('discussion', 2).name = 'List'
  })
  const pages = everyCourseItem(course)
  const open = openOnPages(result)
  const names = urgentFirst(pages, open).map(({ item }) => item.name)
  expect(names.slice(0, 3)).toEqual(['Week 3 overview', 'Week 6 overview', 'List'])
  const rest = pages
    .map(({ item }) => item.name)
    .filter((name) => !names.slice(0, 3).includes(name))
  expect(names.slice(3)).toEqual(rest)
  const waived = { id: '1', reason: 'so', until: null, changedSince: false }
  const excused = {
    ...result,
    findings: result.findings.map((finding) => ({
      ...finding,
      places: finding.places.map((place) => ({ ...place, waived })),
    })),
  }
  expect(openOnPages(excused).size).toBe(0)
  expect(openOnPages(null).size).toBe(0)
})
