import { act, fireEvent, screen, waitFor } from '@testing-library/react'
import { describe, expect, it } from 'vitest'
import type { LibraryEntry } from '@wickerframe/contract'
import { newItem, type Item, type ItemFile, type TemplateFile } from '@wickerframe/core'
import { exampleTemplate } from '@wickerframe/core/testing'
import { contentFor, fileNamed, keptFile } from '../../../testing/files.testing.ts'
import { openDraft } from '../../../testing/keptDraft.testing.ts'
import { show } from '../../../testing/screen.testing.tsx'
import { Clashes } from '../Clashes.tsx'
import { useDraftStore, type OpenClash } from '../draftStore.ts'
import { FileEditor } from './FileEditor.tsx'
import { filePartOf } from './fileEdits.ts'

const held: TemplateFile = {
  key: 'map',
  title: 'Map of the quay',
  fileName: 'map.pdf',
  content: contentFor('map.pdf'),
  bytes: 30_000,
  licence: '',
  fields: [],
}
const inLibrary: LibraryEntry = {
  kind: 'file',
  key: 'guide',
  title: 'Guide',
  revision: 1,
  savedAt: '2026-09-01T10:00:00.000Z',
  by: 'designer@kestrelsound.example',
  document: { ...held, key: 'guide', title: 'Guide', content: contentFor('guide.pdf') },
  templates: [],
  courses: 0,
  coursesOutOfDate: 0,
}

const Shown = ({ above }: { above: ItemFile | undefined }) => {
  const { draft } = useDraftStore()
  const part = draft && filePartOf(draft, 'handout')
  return part ? <FileEditor part={part} template={draft} above={above} expected={null} /> : null
}
let opened = 0
const open = ({
  file,
  above,
  mayEdit = true,
}: { file?: ItemFile; above?: ItemFile; mayEdit?: boolean } = {}) => {
  const draft = { ...exampleTemplate(), key: `files-${++opened}`, files: [held] }
  const [first] = draft.parts
  if (first?.kind === 'module')
    first.items.push({ ...newItem('file', 'handout', 'Handout'), ...(file ? { file } : {}) })
  const { onServer, asked } = openDraft(draft, {
    mayEdit,
    answers: { putFile: keptFile, listLibrary: [inLibrary] },
  })
  const shown = show(<Shown above={above} />)
  const part = (): Item | null => filePartOf(onServer(), 'handout')
  return { ...shown, onServer, part, asked }
}
const field = () => screen.getByLabelText<HTMLInputElement>('A file for this part')

describe('the file of a part', () => {
  it('is told to be missing, and what can be done', () => {
    open()
    screen.getByText(/students would press this and find nothing/)
  })
  it('is put in by one choice, and what is worth knowing of it is said', async () => {
    const { user, part, onServer } = open()
    await user.upload(field(), fileNamed('Syllabus form.docx'))
    await waitFor(() => expect(part()?.file).toEqual({ key: 'syllabus-form' }))
    expect(onServer().files.at(-1)).toMatchObject({
      key: 'syllabus-form',
      title: 'Syllabus form',
      fileName: 'Syllabus form.docx',
      fields: ['{code}'],
      words: 'Syllabus of {code}',
    })
    await screen.findByText('“Syllabus form.docx” is filled for each course: {code}.')
    screen.getByText(/\{see below\} is no field and stays/)
  })
  it('is one step of undo', async () => {
    const { user, part, onServer } = open()
    await user.upload(field(), fileNamed('guide.pdf'))
    await waitFor(() => expect(part()?.file).toBeDefined())
    act(() => useDraftStore.getState().undo())
    await waitFor(() => expect(part()?.file).toBeUndefined())
    expect(onServer().files).toEqual([held])
  })
  it('that is there already is not held twice', async () => {
    const { user, part, onServer } = open()
    await user.upload(field(), fileNamed('map.pdf'))
    await waitFor(() => expect(part()?.file).toEqual({ key: 'map' }))
    expect(onServer().files).toHaveLength(1)
  })
  it('that may not be put in is told by name and never sent; what the server refuses is told as it says', async () => {
    const { part, asked } = open()
    fireEvent.drop(field(), { dataTransfer: { files: [fileNamed('page.html')], types: ['Files'] } })
    await screen.findByText(/“page.html” is none that may be put in/)
    fireEvent.drop(field(), {
      dataTransfer: { files: [fileNamed('long.mp4', 25 * 2 ** 20 + 1)], types: ['Files'] },
    })
    await screen.findByText(/“long.mp4” has 25.0 MB; at most/)
    fireEvent.drop(field(), {
      dataTransfer: { files: [fileNamed('nothing.pdf', 0)], types: ['Files'] },
    })
    await screen.findByText('“nothing.pdf” is empty.')
    expect(asked.filter(({ route }) => route === 'putFile')).toEqual([])
    fireEvent.drop(field(), { dataTransfer: { files: [fileNamed('bad.pdf')], types: ['Files'] } })
    await screen.findByText('“bad.pdf” was not put in: it is no PDF')
    expect(part()?.file).toBeUndefined()
  })
  it('is chosen among those that are there, and from the library, which the template holds then', async () => {
    const { user, part, onServer } = open()
    const pick = await screen.findByLabelText('Or one that is there')
    await user.selectOptions(pick, 'Map of the quay')
    await waitFor(() => expect(part()?.file).toEqual({ key: 'map' }))
    await screen.findByRole('option', { name: 'Guide (from the library)' })
    await user.selectOptions(pick, 'Guide (from the library)')
    await waitFor(() => expect(part()?.file).toEqual({ key: 'guide' }))
    expect(onServer().files.map(({ key }) => key)).toEqual(['map', 'guide'])
  })
  it('is left to the instructor as a proposal, a form, or one of theirs', async () => {
    const { user, part } = open({ file: { key: 'map' } })
    await user.selectOptions(screen.getByLabelText('It is'), 'theirs')
    await waitFor(() => expect(part()?.file).toEqual({ key: 'map', left: 'theirs' }))
    await user.selectOptions(screen.getByLabelText('It is'), 'proposed')
    await waitFor(() => expect(part()?.file).toEqual({ key: 'map', left: 'proposed' }))
    await user.selectOptions(screen.getByLabelText('It is'), 'the same for everybody')
    await waitFor(() => expect(part()?.file).toEqual({ key: 'map' }))
    await user.selectOptions(screen.getByLabelText('Or one that is there'), 'none')
    await waitFor(() => expect(part()?.file).toBeUndefined())
    await user.click(screen.getByRole('button', { name: 'Ask the instructor for a file' }))
    await waitFor(() => expect(part()?.file).toEqual({ left: 'theirs' }))
    screen.getByText(/asked for a file of their own/)
    await user.click(screen.getByRole('button', { name: 'Ask for none' }))
    await waitFor(() => expect(part()?.file).toBeUndefined())
  })
  it.each([
    ['the layer above gives it out', { above: { key: 'map' } }, true],
    ['it is only read', { mayEdit: false }, true],
    ['the layer above leaves it', { above: { key: 'map', left: 'proposed' as const } }, false],
  ])('where %s, whether it stands as it is', (_, given, stands) => {
    open({ file: { key: 'map' }, ...given })
    expect(field().disabled).toBe(stands)
  })
  it('can be saved under its own name', () => {
    open({ file: { key: 'map' } })
    const link = screen.getByRole<HTMLAnchorElement>('link', { name: 'map.pdf' })
    expect(link.getAttribute('download')).toBe('map.pdf')
    expect(link.getAttribute('href')).toBe(`/api/files/${held.content}?name=map.pdf`)
  })
})

describe('a clash over a file', () => {
  it.each<[string, unknown, string]>([
    ['a file', held, 'the file “map.pdf”'],
    [
      'which one is handed out',
      { key: 'map', left: 'theirs' },
      'the file “map.pdf”, to be filled in',
    ],
    ['one that is asked for', { left: 'theirs' }, 'a file of the instructor’s own'],
  ])('tells %s by what it is called', (_, wanted, words) => {
    open({ file: { key: 'map' } })
    const clash: OpenClash = {
      edit: { edit: 'set-field', part: 'handout', field: ['file'], was: null, value: wanted },
      clash: { code: 'clash', where: 'the file of Handout', present: null, wanted },
    }
    show(<Clashes clashes={[clash]} onDecide={() => undefined} />)
    expect(screen.getByRole('alert').textContent).toContain(`you wrote ${words}.`)
  })
})
