import { screen, waitFor, within } from '@testing-library/react'
import { describe, expect, it } from 'vitest'
import type { ImageSet } from '@wickerframe/core'
import type { LibraryEntry, LibraryPut } from '@wickerframe/contract'
import { fileNamed, keptFile } from '../../testing/files.testing.ts'
import { people } from '../../testing/people.testing.ts'
import { show } from '../../testing/screen.testing.tsx'
import { Refusal, serve, type Asked } from '../../testing/server.testing.ts'
import { LibraryScreen } from './LibraryScreen.tsx'
import { wordsOfFileName } from './NewImages.tsx'

const svg = (name: string) => `<svg xmlns="http://www.w3.org/2000/svg"><title>${name}</title></svg>`
const used = {
  revision: 1,
  savedAt: '2026-09-01T10:00:00.000Z',
  by: 'designer@kestrelsound.example',
  courses: 46,
  coursesOutOfDate: 0,
  templates: [{ key: 'harbour', title: 'Harbour Standard', current: true }],
}
const houseText = (key: string, title: string, ...words: string[]): LibraryEntry => ({
  ...used,
  kind: 'house-text',
  key,
  title,
  document: {
    key,
    title,
    form: 'text',
    revisions: words.map((text, i) => ({
      number: i + 1,
      inForceFrom: `202${5 + i}-07-01`,
      html: `<p>${text}</p>`,
    })),
  },
})
const image = (key: string, alternativeText: string): LibraryEntry => ({
  ...used,
  kind: 'image',
  key,
  title: `${key}.svg`,
  document: { key, fileName: `${key}.svg`, svg: svg(key), alternativeText, licence: 'our own' },
})
const entries = [
  houseText('honesty', 'Academic Honesty', 'Your own work.'),
  houseText('muster', 'Emergency Muster', 'Meet at the flagpole.', 'Meet at the east slip.'),
  houseText('help', 'Getting Help', 'Tutors sit in the Chart Room.'),
  image('quay', 'A quay at low water'),
]

const opened = (
  address = '/library',
  put: (asked: Asked) => { revision: number } = () => ({ revision: 2 }),
  role: 'designer' | 'reviewer' = 'designer',
  more: readonly LibraryEntry[] = [],
) => {
  const sent: LibraryPut[] = []
  serve({
    listLibrary: [...entries, ...more],
    putFile: keptFile,
    putIntoLibrary: (asked) => {
      sent.push(asked.body as LibraryPut)
      return put(asked)
    },
  })
  return { ...show(<LibraryScreen me={people[role]} />, { address }), sent }
}
const pane = () => screen.findByRole('article')
const files = (...names: string[]) =>
  names.map((name) => new File([svg(name)], `${name}.svg`, { type: 'image/svg+xml' }))

describe('the library', () => {
  it('shows the first entry with its words, and another by the arrow keys', async () => {
    const { user, address } = opened()
    expect((await pane()).textContent).toContain('Your own work.')
    screen.getByRole('button', { name: /Academic Honesty/ }).focus()
    await user.keyboard('{ArrowDown}')
    expect(within(await pane()).getByRole('heading', { level: 2 }).textContent).toBe(
      'Emergency Muster',
    )
    expect(document.activeElement?.textContent).toContain('Emergency Muster')
    expect(address()).toBe('/library?open=muster')
    await user.keyboard('{End}{ArrowDown}')
    expect(address()).toBe('/library?open=help')
  })

  it('reads each earlier revision with its words, and says where it is used', async () => {
    opened('/library?open=muster')
    const shown = await pane()
    expect(shown.textContent).toContain('Meet at the east slip.')
    const earlier = within(shown).getByText('revision 1, in force from 2025-07-01')
    expect(earlier.closest('details')?.textContent).toContain('Meet at the flagpole.')
    expect(shown.textContent).toContain('Used in 1 template and 46 courses')
  })

  it('finds by any word an entry holds, and says when none does', async () => {
    const { user } = opened()
    const find = await screen.findByRole('searchbox', { name: 'Find' })
    await user.type(find, 'flagpole')
    const list = screen.getByRole('list', { name: 'Entries' })
    expect(within(list).getAllByRole('button')).toHaveLength(1)
    await user.clear(find)
    await user.type(find, 'kraken')
    expect(screen.queryByText('None of 3 holds “kraken”.')).not.toBeNull()
    expect(screen.queryByRole('article')).toBeNull()
  })

  it('offers nothing to change to who may only read', async () => {
    opened('/library', undefined, 'reviewer')
    expect(within(await pane()).queryByRole('button', { name: 'Correct it' })).toBeNull()
    expect(screen.queryByText('Put something in')).toBeNull()
  })

  it('takes several images at once, asks what each shows and the licence once', async () => {
    const { user, sent } = opened('/library?kind=image')
    await user.upload(await screen.findByLabelText('Image files'), files('sea_buoy', 'week-3-tide'))
    const first = await screen.findByRole('textbox', { name: 'What sea_buoy.svg shows' })
    expect((first as HTMLInputElement).value).toBe('sea buoy')
    const put = screen.getByRole('button', { name: 'Put 2 in' })
    expect((put as HTMLButtonElement).disabled).toBe(true)
    await user.clear(first)
    await user.type(first, 'A buoy at the harbour mouth')
    await user.type(screen.getByRole('textbox', { name: 'Licence of all of them' }), 'our own')
    await user.click(put)
    await waitFor(() => expect(sent).toHaveLength(2))
    expect(sent.map(({ kind, document }) => [kind, 'licence' in document && document])).toEqual([
      [
        'image',
        expect.objectContaining({
          alternativeText: 'A buoy at the harbour mouth',
          licence: 'our own',
        }),
      ],
      ['image', expect.objectContaining({ alternativeText: 'week 3 tide', licence: 'our own' })],
    ])
    await waitFor(() => expect(screen.queryByRole('button', { name: /^Put .* in$/ })).toBeNull())
  })

  it('keeps what was typed for the image that is refused, and those after it', async () => {
    let asked = 0
    const { user, sent } = opened('/library?kind=image', () => {
      asked += 1
      if (asked === 2) throw new Refusal(400, 'The drawing holds a script.')
      return { revision: 1 }
    })
    await user.upload(await screen.findByLabelText('Image files'), files('one', 'two', 'three'))
    await user.type(await screen.findByRole('textbox', { name: /^Licence/ }), 'our own')
    await user.click(screen.getByRole('button', { name: 'Put 3 in' }))
    expect(await screen.findByText('The drawing holds a script.')).not.toBeNull()
    expect(sent).toHaveLength(2)
    expect(screen.getAllByRole('textbox', { name: /^What .* shows$/ })).toHaveLength(2)
    expect((screen.getByRole('textbox', { name: /^Licence/ }) as HTMLInputElement).value).toBe(
      'our own',
    )
  })

  it('does not put in twice what is there, and tells what is no image by name', async () => {
    const { user, sent } = opened('/library?kind=image')
    const field = await screen.findByLabelText('Image files')
    await user.upload(field, [
      ...files('quay'),
      new File(['MZ'], 'tide.svg', { type: 'image/svg+xml' }),
    ])
    expect((await screen.findByRole('alert')).textContent).toContain('tide.svg is not a drawing')
    await user.type(screen.getByRole('textbox', { name: 'Licence' }), 'our own')
    await user.click(screen.getByRole('button', { name: 'Put it in' }))
    expect(
      await screen.findByText('quay.svg is in the library already, as “A quay at low water”.'),
    ).not.toBeNull()
    expect(sent).toEqual([])
  })

  it('guesses words from the name of a file', () => {
    expect(wordsOfFileName('week-3_tide chart.svg')).toBe('week 3 tide chart')
    expect(wordsOfFileName('.png')).toBe('')
  })
})

describe('files in the library', () => {
  it('are put in several at once, each called as its file says, the licence asked once', async () => {
    const { user, sent } = opened('/library?kind=file')
    await screen.findByText('Nothing of this kind yet.')
    await user.upload(screen.getByLabelText('Files'), [
      fileNamed('syllabus_form.docx'),
      fileNamed('map.pdf'),
      fileNamed('bad.pdf'),
    ])
    await screen.findByText(/“bad.pdf” was not put in/)
    await user.clear(screen.getByLabelText('What map.pdf is called'))
    expect(screen.getByRole<HTMLButtonElement>('button', { name: 'Put 2 in' }).disabled).toBe(true)
    await user.type(screen.getByLabelText('What map.pdf is called'), 'Map of the quay')
    await user.type(screen.getByLabelText('Licence of all of them'), 'our own')
    await user.click(screen.getByRole('button', { name: 'Put 2 in' }))
    await waitFor(() => expect(sent).toHaveLength(2))
    expect(sent.map(({ kind, was, document }) => [kind, was, document])).toEqual([
      [
        'file',
        null,
        expect.objectContaining({ title: 'syllabus form', fields: ['{code}'], licence: 'our own' }),
      ],
      ['file', null, expect.objectContaining({ key: 'map-of-the-quay', title: 'Map of the quay' })],
    ])
  })
  it('are replaced by another, and keep their key and title', async () => {
    const file = {
      key: 'map',
      title: 'Map of the quay',
      fileName: 'map.pdf',
      content: 'c'.repeat(64),
      bytes: 100,
      licence: '',
      fields: [],
      words: 'North',
    }
    entries.push({ ...used, kind: 'file', key: 'map', title: file.title, document: file })
    const { user, sent } = opened('/library?kind=file&open=map')
    await user.click(await screen.findByRole('button', { name: 'Correct it' }))
    await user.upload(
      screen.getByLabelText('The file that takes its place'),
      fileNamed('map 2.pdf'),
    )
    await screen.findByText(/map 2.pdf takes its place/)
    await user.click(screen.getByRole('button', { name: 'Save' }))
    await waitFor(() => expect(sent).toHaveLength(1))
    expect(sent[0]?.document).toMatchObject({
      key: 'map',
      title: 'Map of the quay',
      fileName: 'map 2.pdf',
    })
    expect(sent[0]?.document).not.toHaveProperty('words')
    entries.pop()
  })
  const muster = (more: object) => ({
    key: 'muster',
    title: 'Muster plan',
    fileName: 'muster.pdf',
    content: 'd'.repeat(64),
    bytes: 100,
    licence: '',
    fields: [] as string[],
    ...more,
  })
  const openFile = async (more: object) => {
    const document = muster(more)
    entries.push({ ...used, kind: 'file', key: 'muster', title: document.title, document })
    const shown = opened('/library?kind=file&open=muster')
    await screen.findByRole('button', { name: 'Correct it' })
    const address = screen.queryByRole('link', { name: 'the newest' })?.getAttribute('href')
    await shown.user.click(await screen.findByRole('button', { name: 'Correct it' }))
    entries.pop()
    return { ...shown, address, tick: screen.getByLabelText<HTMLInputElement>(/^kept current/) }
  }
  it('are kept current for all courses where that is said, and stay so', async () => {
    const { user, sent, tick } = await openFile({})
    await user.click(tick)
    await user.click(screen.getByRole('button', { name: 'Save' }))
    await waitFor(() => expect(sent).toHaveLength(1))
    expect(sent[0]?.document).toMatchObject({ key: 'muster', current: true })
  })
  it('that are kept current say where they are, and cannot be taken back', async () => {
    const { tick, address } = await openFile({ current: true })
    expect([tick.checked, tick.disabled]).toEqual([true, true])
    expect(address).toBe('/house-files/muster')
  })
  it('that are filled for each course are brought by rollouts only', async () => {
    const { tick } = await openFile({ fields: ['{code}'] })
    expect([tick.checked, tick.disabled]).toEqual([false, true])
    screen.getByText(/filled for each course: it is brought there by rollouts/)
  })
})

describe('sets of images', () => {
  const setEntry = (document: ImageSet): LibraryEntry => ({
    ...used,
    kind: 'image-set',
    key: document.key,
    title: document.title,
    templates: [],
    courses: 0,
    document,
  })
  const drawn = (key: string, viewBox: string): LibraryEntry => {
    const entry = image(key, `A ${key}`)
    const svg = `<svg xmlns="http://www.w3.org/2000/svg" viewBox="${viewBox}"></svg>`
    return { ...entry, document: { ...entry.document, svg } as LibraryEntry['document'] }
  }
  const banners = (...images: string[]): ImageSet => ({
    key: 'banners',
    title: 'Banners',
    size: { width: 1200, height: 240 },
    images,
  })
  const more = [
    drawn('pier', '0 0 500 100'),
    drawn('mole', '0 0 100 100'),
    setEntry(banners('pier', 'mole')),
  ]
  const names = async () =>
    within(await screen.findByRole('list', { name: 'Entries' }))
      .getAllByRole('button')
      .map(({ textContent }) => /A (?:pier|mole|quay)/.exec(textContent)?.[0])

  it('are shown one at a time, with how many are not of its size, and by the address', async () => {
    const { user, address } = opened('/library?kind=image', undefined, 'designer', more)
    await user.click(await screen.findByRole('button', { name: 'Banners (2)' }))
    expect(address()).toBe('/library?kind=image&set=banners')
    expect(await names()).toEqual(['A pier', 'A mole'])
    expect(screen.getByText(/Banners are 1200 × 240 pixels/).textContent).toContain(
      '1 is of another size',
    )
    await user.click(screen.getByRole('button', { name: 'in no set (1)' }))
    expect(await names()).toEqual(['A quay'])
  })
  it('say of an image in them that it is of another size, and take it out by a tick', async () => {
    const { user, sent } = opened('/library?kind=image&open=mole', undefined, 'designer', more)
    expect((await pane()).textContent).toContain(
      'It is drawn, 100 × 100, of another proportion; Banners are 1200 × 240.',
    )
    expect(screen.queryByRole('button', { name: /Cut it/ })).toBeNull()
    await user.click(screen.getByRole('checkbox', { name: 'one of “Banners”' }))
    await waitFor(() =>
      expect(sent).toEqual([{ kind: 'image-set', was: 1, document: banners('pier') }]),
    )
  })
  it('are made with a name and a size, and changed; what is no size is not sent', async () => {
    const { user, sent, address } = opened('/library?kind=image')
    await user.click(await screen.findByRole('button', { name: 'new set' }))
    await user.type(screen.getByLabelText('What the images are'), 'Week pictures')
    await user.clear(screen.getByLabelText('Width'))
    expect(screen.getByRole('button', { name: 'Make the set' })).toHaveProperty('disabled', true)
    await user.type(screen.getByLabelText('Width'), '800')
    await user.click(screen.getByRole('button', { name: 'Make the set' }))
    await waitFor(() => expect(address()).toContain('set=week-pictures'))
    expect(sent).toEqual([
      {
        kind: 'image-set',
        was: null,
        document: {
          key: 'week-pictures',
          title: 'Week pictures',
          size: { width: 800, height: 240 },
          images: [],
        },
      },
    ])
  })
  it('take images as they are put in, told what does not fit before it is', async () => {
    const { user, sent } = opened('/library?kind=image&set=banners', undefined, 'designer', more)
    const file = new File(['<svg viewBox="0 0 30 30"></svg>'], 'wreck.svg', {
      type: 'image/svg+xml',
    })
    await user.upload(await screen.findByLabelText('Image files'), file)
    expect(await screen.findByText(/It is drawn, 30 × 30, of another proportion/)).toBeTruthy()
    await user.type(screen.getByLabelText('Licence'), 'our own')
    await user.click(screen.getByRole('button', { name: 'Put it in' }))
    await waitFor(() => expect(sent).toHaveLength(2))
    expect(sent[1]).toEqual({
      kind: 'image-set',
      was: 1,
      document: banners('pier', 'mole', 'wreck'),
    })
  })
  it('hold what was put in though the next was refused', async () => {
    const { user, sent } = opened(
      '/library?kind=image&set=banners',
      ({ body }) => {
        const put = body as LibraryPut
        if (put.kind === 'image' && put.document.key === 'wreck')
          throw new Refusal(409, 'there is one already')
        return { revision: 2 }
      },
      'designer',
      more,
    )
    await user.upload(await screen.findByLabelText('Image files'), files('reef', 'wreck'))
    await user.type(await screen.findByLabelText('Licence of all of them'), 'our own')
    await user.click(screen.getByRole('button', { name: 'Put 2 in' }))
    await waitFor(() => expect(sent).toHaveLength(3))
    expect(sent[2]).toMatchObject({ kind: 'image-set', document: banners('pier', 'mole', 'reef') })
    expect(screen.getByRole('alert').textContent).toContain('there is one already')
  })
  it('cannot be changed by who only reads, who is told where an image is', async () => {
    opened('/library?kind=image&open=pier', undefined, 'reviewer', more)
    expect((await pane()).textContent).toContain('one of “Banners”')
    expect(screen.queryByRole('checkbox')).toBeNull()
    expect(screen.queryByRole('button', { name: 'new set' })).toBeNull()
  })
})
