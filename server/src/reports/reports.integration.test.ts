import { parse as parseCsv } from 'csv-parse/sync'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { reportFormatNames } from '@wickerframe/contract'
import { everyCourseItem, type Course } from '@wickerframe/core'
import { setRoles } from '../people/people.ts'
import {
  startCheckedCollege,
  type CheckedCollege,
  type Client,
} from '../testing/privateCollege.testing.ts'

let college: CheckedCollege
const hideWelcome = (course: Course): void => {
  for (const { item } of everyCourseItem(course))
    if (item.name.startsWith('Welcome')) item.published = false
}
beforeAll(async () => {
  college = await startCheckedCollege()
  await college.readWith(hideWelcome)
})
afterAll(() => college.stop())

const reported = (client: Client, query = '') => client.get(`/api/report?${query}`)
const rows = async (query = ''): Promise<Record<string, string>[]> => {
  const { body } = await reported(college.people.designer, `format=csv${query}`)
  return parseCsv(String(body), { columns: true, bom: true })
}

describe('a report', () => {
  it.each(reportFormatNames)('of a course and of all courses is had as %s', async (format) => {
    for (const path of [
      `${college.about}/report?format=${format}`,
      `/api/report?format=${format}`,
    ]) {
      const { status, headers } = await college.people.designer.get(path)
      expect(status).toBe(200)
      expect(headers.get('content-security-policy')).toContain("default-src 'none'")
      expect(headers.get('content-disposition') ?? 'shown').toMatch(
        format === 'html' ? /^shown$/ : /^attachment; filename="?[\w.-]+"?$/,
      )
    }
  })
  it('tells every finding with whose move it is and where its course stands', async () => {
    const { findings } = await college.result()
    const told = await rows()
    expect(told.map(({ fingerprint }) => fingerprint)).toEqual(
      findings.flatMap(({ places }) => places.map((place) => place.fingerprint)),
    )
    const { body } = await college.people.designer.get('/api/report?format=sarif')
    const uri = body.runs[0].results[0].locations[0].physicalLocation.artifactLocation.uri
    expect(uri).toMatch(new RegExp(`^https?://.*/courses/${college.course}$`))
  })
  it('is of the bands that are named, and of nothing where there is none', async () => {
    const [course] = (await college.people.designer.get('/api/courses')).body
    expect(await rows(`&by=department&of=${course.department}`)).toEqual(await rows())
    expect(await rows(`&by=length&of=${course.weeks} weeks~3 weeks&shown=open`)).toEqual(
      await rows(),
    )
    const none = await reported(college.people.designer, 'of=Another')
    expect([none.status, none.body.type]).toEqual([404, expect.stringContaining('not-checked')])
    expect((await reported(college.people.designer, 'format=pdf')).status).toBe(400)
  })
  it('leaves out courses in which nothing is open, where that is asked for', async () => {
    await college.readWith()
    expect((await reported(college.people.designer, 'shown=open')).status).toBe(404)
    expect((await reported(college.people.designer, 'shown=all')).status).toBe(200)
    await college.readWith(hideWelcome)
  })
  it('of the college is for those who see it; a course’s for those who see the course', async () => {
    expect((await reported(college.people.instructor)).status).toBe(403)
    expect(
      (await college.people.instructor.get(`${college.about}/report?format=html`)).status,
    ).toBe(200)
    const other = await college.as(await college.person('instructor', 'other'))
    expect((await other.get(`${college.about}/report`)).status).toBe(404)
    const person = await college.person('reviewer', 'chair')
    await setRoles(college.pool, person.id, ['reviewer'], ['ZZZ'])
    expect((await reported(await college.as(person))).status).toBe(404)
  })
})
