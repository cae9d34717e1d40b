import { screen, within } from '@testing-library/react'
import { describe, expect, it } from 'vitest'
import { exampleTemplate } from '@wickerframe/core/testing'
import { courseSummary, templateSummary } from '../../testing/answers.testing.ts'
import { show } from '../../testing/screen.testing.tsx'
import { Refusal, serve, type Answers } from '../../testing/server.testing.ts'
import { NewRolloutScreen } from './NewRolloutScreen.tsx'

const under = (key: string) => ({ key, title: `The ${key}`, version: 1, newest: 1 })
const courses = [
  courseSummary(1),
  courseSummary(2, { department: 'HOP', modality: 'online', title: 'Harbour work' }),
  courseSummary(3, { state: 'deployed', template: under('harbour') }),
  courseSummary(4, { state: 'deployed', template: under('other') }),
  courseSummary(5, { instructors: [] }),
  courseSummary(6, { status: 'cancelled' }),
]
const open = async (address = '/rollouts/new?template=harbour', more: Answers = {}) => {
  const asked = serve({
    listTemplates: [templateSummary('harbour'), templateSummary('other')],
    listCourses: courses,
    listStandingRules: {
      rules: [],
      fits: [{ template: 'harbour', title: 'The harbour', courses: [1, 4] }],
      none: [],
      several: [],
    },
    readVersion: { ...exampleTemplate(), key: 'harbour' },
    planRollout: { run: 12 },
    ...more,
  })
  const shown = show(<NewRolloutScreen />, { address, path: '/rollouts/new' })
  await screen.findByRole('heading', { name: /^Which courses/ })
  const chosen = (): string | null =>
    new URL(shown.address(), 'http://x').searchParams.get('courses')
  return { ...shown, asked, chosen }
}
const heading = (): string => screen.getByRole('heading', { name: /^Which courses/ }).textContent
const planned = (asked: Awaited<ReturnType<typeof open>>['asked']) =>
  asked.find(({ route }) => route === 'planRollout')?.body

describe('which courses a rollout goes to', () => {
  it('begins with none, and counts no course that is cancelled', async () => {
    await open()
    expect(heading()).toBe('Which courses: 0 of 5 chosen')
    expect(screen.queryByText(/Navigation 6/)).toBeNull()
  })
  it('leaves what is odd out until it is ticked, and then says once more what is odd', async () => {
    const { user, chosen } = await open()
    await user.click(screen.getByRole('button', { name: 'all shown that are not odd' }))
    expect(chosen()).toBe('1.2.3')
    await user.click(screen.getByRole('checkbox', { name: /Navigation 5/ }))
    expect(chosen()).toBe('1.2.3.5')
    expect(screen.getByText(/1 odd course among those chosen/).textContent).toContain(
      'nobody teaches it yet',
    )
  })
  it('says loudly when a course would leave another template', async () => {
    const { user } = await open()
    await user.click(screen.getByRole('checkbox', { name: /Navigation 4/ }))
    expect(screen.getByText('1 course would leave The other.')).toBeTruthy()
  })
  it('chooses by the standing rules, without what is odd', async () => {
    const { user, chosen } = await open()
    await user.click(screen.getByRole('button', { name: 'the 2 the standing rules give it' }))
    expect(chosen()).toBe('1')
  })
  it('finds by name and department, and “all shown” means those', async () => {
    const { user, chosen } = await open()
    await user.selectOptions(screen.getByRole('combobox', { name: 'Department' }), 'HOP')
    await user.click(screen.getByRole('button', { name: 'all shown that are not odd' }))
    expect(chosen()).toBe('2')
    await user.selectOptions(screen.getByRole('combobox', { name: 'Department' }), 'all')
    await user.type(screen.getByRole('textbox', { name: 'Find' }), 'noor vest')
    expect(screen.getAllByRole('checkbox').length).toBeGreaterThan(2)
    await user.clear(screen.getByRole('textbox', { name: 'Find' }))
    await user.type(screen.getByRole('textbox', { name: 'Find' }), 'harbour work')
    const list = screen.getByRole('region', { name: 'Courses to choose from' })
    expect(within(list).getAllByRole('checkbox')).toHaveLength(1)
  })
})

describe('planning a rollout', () => {
  it('needs a template and a course', async () => {
    const { user, address } = await open('/rollouts/new')
    const make = () => screen.getByRole('button', { name: /^Make the plans/ })
    expect(make().hasAttribute('disabled')).toBe(true)
    expect(screen.getByText('Choose a template first.')).toBeTruthy()
    await user.selectOptions(screen.getByRole('combobox', { name: 'Template' }), 'harbour')
    expect(make().hasAttribute('disabled')).toBe(true)
    await user.click(screen.getByRole('checkbox', { name: /Navigation 1/ }))
    expect(make().textContent).toBe('Make the plans for 1 course')
    expect([make().hasAttribute('disabled'), address()]).toEqual([
      false,
      '/rollouts/new?template=harbour&courses=1',
    ])
  })
  it('asks for just what was ticked, and goes to the plans', async () => {
    const { user, asked, address } = await open('/rollouts/new?template=harbour&courses=1.3')
    await user.click(screen.getByRole('checkbox', { name: /restore fixed text/ }))
    await user.click(await screen.findByRole('checkbox', { name: /home page\)$/ }))
    await user.click(screen.getByRole('button', { name: 'Make the plans for 2 courses' }))
    expect(planned(asked)).toMatchObject({
      order: {
        mode: 'version',
        template: 'harbour',
        version: 1,
        only: { parts: ['home-page'], blocks: [] },
        restore: { fixedText: true, missingParts: false },
        adopt: false,
      },
      courses: [1, 3],
      standing: false,
    })
    expect(address()).toBe('/rollouts/12')
  })
  it('takes content over only where a course with other content was chosen', async () => {
    const { user, asked } = await open('/rollouts/new?template=harbour&courses=7', {
      listCourses: [courseSummary(7, { state: 'other-content' })],
    })
    await user.click(screen.getByRole('button', { name: 'Make the plans for 1 course' }))
    expect(planned(asked)).toMatchObject({ order: { adopt: true } })
  })
  it('that is refused says why, and keeps what was chosen', async () => {
    const { user, chosen } = await open('/rollouts/new?template=harbour&courses=1', {
      planRollout: () => {
        throw new Refusal(409, 'Version 1 was retired meanwhile.')
      },
    })
    await user.click(screen.getByRole('button', { name: 'Make the plans for 1 course' }))
    expect(await screen.findByText('Version 1 was retired meanwhile.')).toBeTruthy()
    expect(chosen()).toBe('1')
  })
})
