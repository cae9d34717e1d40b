import { screen, within } from '@testing-library/react'
import { describe, expect, it, vi } from 'vitest'
import type { CourseCare, Me } from '@wickerframe/contract'
import { checkedExample, noCare } from '../../../testing/checked.testing.ts'
import { people } from '../../../testing/people.testing.ts'
import { show } from '../../../testing/screen.testing.tsx'
import { Refusal, serve } from '../../../testing/server.testing.ts'
import { WhatToMend } from './WhatToMend.tsx'

const twoThings = () =>
  checkedExample(({ item, module }) => {
    module('week', 2).name = 'wk 2'
    item('assignment', 2).dueAt = null
  })

const showMending = (
  {
    me = people.designer,
    care = noCare(),
    of = twoThings(),
  }: { me?: Me; care?: CourseCare; of?: ReturnType<typeof twoThings> },
  address = '/courses/7',
) => {
  const onShowPage = vi.fn()
  const onBegun = vi.fn()
  const shown = show(
    <WhatToMend
      me={me}
      courseId={7}
      course={of.course}
      facts={of.facts}
      template={of.template}
      result={of.result}
      care={care}
      only={null}
      onShowPage={onShowPage}
      onBegun={onBegun}
    />,
    { address, path: '/courses/:id' },
  )
  return { ...shown, onShowPage, onBegun, of }
}
const lines = (): HTMLElement[] => [...document.querySelectorAll<HTMLElement>('[data-finding]')]
const messages = (): string[] => lines().map((line) => line.children[2]?.textContent ?? '')
const lineOf = (text: string): HTMLElement => {
  const found = lines().find((line) => line.textContent.includes(text))
  if (!found) throw new Error(`no line says ${text}: ${messages().join(' | ')}`)
  return found
}

describe('what to mend', () => {
  it('says that nothing is, where every requirement is met', () => {
    showMending({ of: checkedExample() })
    expect(screen.getByText('Nothing to mend: every requirement is met.')).toBeTruthy()
    expect(screen.queryByRole('button', { name: /mend/ })).toBeNull()
  })
  it('tells each finding in one line, and opens it into its evidence and what is expected', async () => {
    const { user } = showMending({})
    const line = lineOf('“wk 2”')
    const why = within(line).getByRole('button', { name: 'why' })
    expect(why.getAttribute('aria-expanded')).toBe('false')
    await user.click(why)
    expect(why.getAttribute('aria-expanded')).toBe('true')
    expect(within(line).getByText('wk 2', { selector: 'mark' })).toBeTruthy()
    expect(within(line).getByText(/^Expected: /).textContent).toContain('Week 2')
  })
  it('says of what the course has from its template that the designers mend it there', async () => {
    const of = checkedExample()
    const [finding] = twoThings().result.findings
    if (!finding) throw new Error('something is wrong')
    of.result.findings = [{ ...finding, mender: 'designer', owner: null, ofTemplate: true }]
    const { user } = showMending({ of }, '/courses/7?by=person')
    expect(screen.getByRole('heading', { name: /The designers/ })).toBeTruthy()
    await user.click(screen.getByRole('button', { name: 'why' }))
    expect(screen.getByText(/has it from its template/)).toBeTruthy()
  })
  it('says on the press what the mend does', () => {
    showMending({})
    expect(within(lineOf('“wk 2”')).getByRole('button', { name: 'mend: rename it' })).toBeTruthy()
  })
  it('is narrowed to musts, in the address, and says so where nothing is left', async () => {
    const of = checkedExample(({ module }) => void (module('week', 2).name = 'wk 2'))
    const shoulds = of.result.findings.filter(({ strength }) => strength !== 'must')
    const { user, address } = showMending({
      of: { ...of, result: { ...of.result, findings: shoulds } },
    })
    await user.click(screen.getByRole('button', { name: 'only musts' }))
    expect(address()).toBe('/courses/7?strength=must')
    expect(screen.getByText(/^Nothing to mend/)).toBeTruthy()
    await user.click(screen.getByRole('button', { name: 'only musts' }))
    expect(address()).toBe('/courses/7')
  })
  it.each(['page', 'person', 'rule'] as const)('holds the same findings by %s', (by) => {
    showMending({})
    const all = messages().sort()
    document.body.replaceChildren()
    showMending({}, `/courses/7?by=${by}`)
    expect(messages().sort()).toEqual(all)
  })
  it('offers a reviewer nothing that would be refused', () => {
    showMending({ me: people.reviewer })
    expect(
      screen.queryByRole('button', { name: /[Mm]end|[Ww]aive|[Rr]aise|[Pp]romise/ }),
    ).toBeNull()
    expect(messages().length).toBeGreaterThan(0)
  })
  it('marks what is new since the check before, and shows only that on demand', async () => {
    const of = twoThings()
    const [fresh] = of.result.findings
    if (!fresh) throw new Error('no finding')
    const care = {
      ...noCare(),
      since: {
        checkedAt: '2026-09-15T12:00:00Z',
        fresh: fresh.places.map(({ fingerprint }) => fingerprint),
        gone: ['The home page was hidden.'],
      },
    }
    const { user } = showMending({ of, care })
    expect(screen.getByText('1 place new, 1 gone.')).toBeTruthy()
    const before = messages().length
    await user.click(screen.getByRole('button', { name: 'only new ones' }))
    expect(messages().length).toBeLessThan(before)
    expect(messages()).toHaveLength(1)
  })
})

describe('a waiver', () => {
  const open = async (me: Me) => {
    const shown = showMending({ me })
    await shown.user.click(
      within(lineOf('no due date')).getByRole('button', { name: /^(waive|ask for a waiver)$/ }),
    )
    return shown
  }
  it('needs a reason, and is sent for just this place with its last day', async () => {
    const asked = serve({ askWaiver: {} })
    const { user } = await open(people.designer)
    const give = screen.getByRole('button', { name: 'Give the waiver' })
    expect(give.hasAttribute('disabled')).toBe(true)
    await user.type(screen.getByLabelText('Why it is right as it is'), 'The field trip.')
    await user.type(screen.getByRole('textbox', { name: /^Until/ }), '1 Oct')
    await user.click(give)
    expect(asked).toMatchObject([
      {
        route: 'askWaiver',
        at: { course: '7' },
        body: { scope: 'place', until: '2026-10-01', reason: 'The field trip.' },
      },
    ])
    expect(screen.queryByRole('dialog')).toBeNull()
  })
  it('refused by the server keeps what was typed, and says why', async () => {
    serve({
      askWaiver: () => {
        throw new Refusal(409, 'The course was checked again meanwhile.')
      },
    })
    const { user } = await open(people.instructor)
    await user.type(screen.getByLabelText('Why it is right as it is'), 'We sail that week.')
    await user.click(screen.getByRole('button', { name: 'Ask for it' }))
    expect(await screen.findByText('The course was checked again meanwhile.')).toBeTruthy()
    expect(screen.getByLabelText<HTMLTextAreaElement>('Why it is right as it is').value).toBe(
      'We sail that week.',
    )
  })
})

describe('several at once', () => {
  const chooseAll = async (shown: ReturnType<typeof showMending>) => {
    for (const line of lines()) await shown.user.click(within(line).getByRole('checkbox'))
    return lines().length
  }
  it('with none chosen are all whose mend is known, and the rest is raised with whoever it is', async () => {
    const asked = serve({ followUp: {} })
    const { user, of } = showMending({
      of: checkedExample(({ item, module }) => {
        module('week', 2).name = 'wk 2'
        item('assignment', 2).dueAt = null
        const overview = item('week-overview', 3)
        overview.html = `${overview.html ?? ''}<p><img src="/chart.png"></p>`
      }),
    })
    const mends = of.result.findings.filter(({ places }) => places.some(({ mend }) => mend))
    expect(screen.getByRole('button', { name: `Mend the ${mends.length} we know` })).toBeTruthy()
    await user.click(screen.getByRole('button', { name: /^Raise \d/ }))
    expect(asked).toMatchObject([{ route: 'followUp', body: { does: 'raise' } }])
  })
  it('are waived together, each place by its own fingerprint', async () => {
    const asked = serve({ askWaiver: {} })
    const shown = showMending({})
    const count = await chooseAll(shown)
    await shown.user.click(screen.getByRole('button', { name: `Waive ${count}` }))
    await shown.user.type(screen.getByLabelText('Why it is right as it is'), 'The field trip.')
    await shown.user.click(screen.getByRole('button', { name: 'Give the waivers' }))
    const wanted = shown.of.result.findings
      .filter(({ strength }) => strength !== 'may')
      .flatMap(({ places }) => places.map(({ fingerprint }) => fingerprint))
    expect(asked).toMatchObject([
      { body: { fingerprints: expect.arrayContaining(wanted), reason: 'The field trip.' } },
    ])
    expect(asked[0]?.body).toMatchObject({ fingerprints: { length: wanted.length } })
  })
  it('are promised together by whoever teaches, for one day', async () => {
    const asked = serve({ followUp: {} })
    const shown = showMending({ me: people.instructor })
    const count = await chooseAll(shown)
    expect(screen.queryByRole('button', { name: /^[Rr]aise/ })).toBeNull()
    await shown.user.click(screen.getByRole('button', { name: `Promise ${count}` }))
    await shown.user.type(screen.getByLabelText('Mended by'), '2026-09-25')
    await shown.user.click(screen.getByRole('button', { name: 'Promise' }))
    expect(asked).toMatchObject([
      { route: 'followUp', body: { does: 'promise', by: '2026-09-25' } },
    ])
    expect(screen.queryByRole('dialog')).toBeNull()
  })
  it('are let go again, and a heading takes all under it', async () => {
    const { user } = showMending({}, '/courses/7?by=person')
    const [all] = screen.queryAllByRole('button', { name: /^choose all/ })
    if (all) await user.click(all)
    else await user.click(within(lineOf('“wk 2”')).getByRole('checkbox'))
    expect(screen.getByText(/\d+ chosen/)).toBeTruthy()
    const [letGo] = screen.getAllByRole('button', { name: /^let go$/ })
    await user.click(letGo as HTMLElement)
    expect(screen.queryByText(/\d+ chosen/)).toBeNull()
  })
})

describe('what was raised', () => {
  const raised = (of: ReturnType<typeof twoThings>, state: 'raised' | 'promised' | 'answered') => {
    const finding = of.result.findings.find(({ rule }) => rule === 'due-missing')
    const [place] = finding?.places ?? []
    if (!place) throw new Error('no missing due date')
    return {
      ...noCare(),
      followUps: [
        {
          fingerprint: place.fingerprint,
          state,
          owner: 'somebody@kestrelsound.example',
          message: place.message,
          note: 'Please',
          raisedBy: people.designer.email,
          raisedAt: '2026-09-14T12:00:00Z',
          promisedFor: state === 'promised' ? '2026-09-15' : null,
          answer: state === 'answered' ? 'On purpose' : '',
        },
      ],
    }
  }
  it.each([
    ['raised', 'raised with somebody@kestrelsound.example'],
    ['promised', 'somebody@kestrelsound.example promised it for 2026-09-15, which has passed'],
    ['answered', 'somebody@kestrelsound.example: On purpose'],
  ] as const)('says on its line that it is %s', (state, words) => {
    const of = twoThings()
    showMending({ of, care: raised(of, state) })
    expect(lineOf('no due date').textContent).toContain(words)
    expect(within(lineOf('no due date')).queryByRole('button', { name: 'raise' })).toBeNull()
  })
  it('is answered from its line', async () => {
    const asked = serve({ followUp: {} })
    const of = twoThings()
    const { user } = showMending({ of, care: raised(of, 'raised'), me: people.instructor })
    await user.click(within(lineOf('no due date')).getByRole('button', { name: 'answer' }))
    await user.type(screen.getByLabelText('The answer'), 'We sail.')
    await user.click(screen.getByRole('button', { name: 'Answer' }))
    expect(asked).toMatchObject([{ body: { does: 'answer', answer: 'We sail.' } }])
  })
})

describe('what could not be told', () => {
  const unseen = () =>
    checkedExample(({ item }) => {
      item('welcome').html = null
      item('home-page').html = null
    })
  const told = () =>
    within(
      screen.getByRole('heading', { name: 'Could not be told' }).closest('section') ??
        document.body,
    )
  it('is one line for each page that cannot be read, with what is not known of it', () => {
    const { of } = showMending({ of: unseen() })
    expect(
      told()
        .getAllByText(/could not be read/)
        .map(({ textContent }) => textContent),
    ).toEqual([
      expect.stringContaining('“NAV 110 home” could not be read'),
      expect.stringContaining('“Welcome to NAV 110” could not be read'),
    ])
    const counts = told()
      .getAllByText(/^\d+ requirements$/)
      .map(({ textContent }) => Number.parseInt(textContent))
    expect(counts.reduce((sum, one) => sum + one, 0)).toBe(of.result.counts.cannotTell)
  })
  it('is settled by one word for all of a page', async () => {
    const given: unknown[] = []
    serve({ attest: ({ body }) => (given.push(body), {}) })
    const { user, of } = showMending({ me: people.instructor, of: unseen() })
    const [first] = told().getAllByRole('button', { name: 'I looked: it is in order' })
    if (!first) throw new Error('a word can be given')
    await user.click(first)
    expect(given).toMatchObject([
      {
        fingerprints: of.result.outcomes.flatMap(({ reason, fingerprint }) =>
          reason?.startsWith('“NAV 110 home”') ? [fingerprint] : [],
        ),
        words: 'I looked: it is in order',
      },
    ])
  })
  it('that somebody gave their word for is told once, with how much it is', () => {
    const word = (id: string, words: string) => ({
      id,
      rule: 'block-missing',
      fingerprint: id,
      by: 'sunniva.drake@kestrelsound.example',
      on: '2026-09-16',
      until: null,
      words,
    })
    showMending({
      care: {
        ...noCare(),
        attestations: [word('1', 'I looked'), word('2', 'Set up'), word('3', 'I looked')],
      },
    })
    expect(
      screen.getAllByText(/sunniva\.drake.*2026-09-16/).map(({ textContent }) => textContent),
    ).toEqual([
      'I looked (sunniva.drake@kestrelsound.example, 2026-09-16) · 2 requirements',
      'Set up (sunniva.drake@kestrelsound.example, 2026-09-16)',
    ])
  })
  it('and that is seen to be wrong since is told again, and the word says so', () => {
    const of = twoThings()
    const place = of.result.findings.flatMap(({ places }) => places)[0]
    if (!place) throw new Error('something is open')
    const word = (id: string, fingerprint: string) => ({
      id,
      rule: 'block-missing',
      fingerprint,
      by: 'sunniva.drake@kestrelsound.example',
      on: '2026-09-16',
      until: null,
      words: 'I looked',
    })
    showMending({
      of,
      care: { ...noCare(), attestations: [word('1', place.fingerprint), word('2', 'elsewhere')] },
    })
    expect(screen.getByText(/sunniva\.drake.*2026-09-16/).textContent).toBe(
      'I looked (sunniva.drake@kestrelsound.example, 2026-09-16) · 2 requirements · 1 can be seen now and is not met: told above.',
    )
  })
})
