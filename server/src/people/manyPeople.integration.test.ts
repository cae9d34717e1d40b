import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { OpenLink, PeoplePage } from '@wickerframe/contract'
import { exampleCourse } from '@wickerframe/core/testing'
import { addPeople } from '../courses/coursePeople.ts'
import {
  startPrivateCollege,
  type Client,
  type PrivateCollege,
} from '../testing/privateCollege.testing.ts'

const many = 10_000
/** What hangs, or grows with the square of the people, takes far longer, also on a busy machine. */
const seconds = { asked: 5, invited: 60 }

let college: PrivateCollege
let asAdmin: Client
beforeAll(async () => {
  college = await startPrivateCollege()
  asAdmin = await college.as(await college.person('administrator', 'root'))
  const id = await college.addCourse(exampleCourse().course, { instructors: [] })
  await addPeople(college.pool, [
    {
      id,
      people: Array.from({ length: many }, (_, i) => ({
        email: `person.${i}@kestrelsound.example`,
        // Every hundredth has an accent that whoever looks for them does not type.
        name: i % 100 === 0 ? `Renée Vogt ${i}` : `Person ${i}`,
        duty: i % 5 === 0 ? ('assistant' as const) : ('instructor' as const),
      })),
    },
  ])
})
afterAll(() => college.stop())

const within = async <T>(most: number, work: () => Promise<T>): Promise<T> => {
  const began = performance.now()
  const result = await work()
  expect((performance.now() - began) / 1000).toBeLessThan(most)
  return result
}
const page = async (query: string): Promise<PeoplePage> =>
  within(seconds.asked, async () => (await asAdmin.get(`/api/people${query}`)).body)

describe('ten thousand people', () => {
  it('are listed page by page: everybody once, by name', async () => {
    const seen: string[] = []
    let query = ''
    for (let after: number | null = 0; after !== null; query = `?after=${after}`) {
      const { people, total, after: next }: PeoplePage = await page(query)
      expect(total).toBe(many + 1)
      seen.push(...people.map(({ email }) => email))
      after = next
    }
    expect([seen.length, new Set(seen).size]).toEqual([many + 1, many + 1])
  })
  it('are found by a part of their name without its accents, by address, and by how far they are', async () => {
    const { total, people } = await page('?search=renee')
    expect([total, people[0]?.name]).toEqual([many / 100, 'Renée Vogt 0'])
    expect((await page('?search=person.777@')).total).toBe(1)
    expect((await page('?state=known')).total).toBe(many)
  })
  it('are all invited at once, each by a link of their own; again, nobody is', async () => {
    const invited = (again: boolean): Promise<OpenLink[]> =>
      within(
        seconds.invited,
        async () => (await asAdmin.post('/api/people/known/invite', { again })).body.links,
      )
    const links = await invited(false)
    expect(new Set(links.map(({ link }) => link)).size).toBe(many)
    expect(await invited(false)).toEqual([])
    expect((await page('?state=invited')).total).toBe(many)
    const later = await invited(true)
    expect(later.some(({ link }) => links.some((other) => other.link === link))).toBe(false)
    expect(later).toHaveLength(many)
  }, 300_000)
  it('are one fewer when somebody leaves, whose name is nowhere then', async () => {
    const { people } = await page('?search=person.4321@')
    const [{ id = 0, revision = 0 } = {}] = people
    await within(seconds.asked * 2, () =>
      asAdmin.post(`/api/people/${id}/take-out`, { was: revision }),
    )
    expect((await page('?search=4321')).total).toBe(0)
    expect((await page('?state=left')).total).toBe(1)
  })
})
