import { describe, expect, it } from 'vitest'
import {
  ContentId,
  FileName,
  fileEndings,
  fileKinds,
  fileNameFor,
  kindOfFileName,
  newWords,
  shownOf,
  sizeInWords,
  titleOfFileName,
} from './index.ts'

describe('what a file is called', () => {
  it.each([
    ['Syllabus form.docx', 'Syllabus form.docx'],
    ['Emploi du temps – été.pdf', 'Emploi du temps – été.pdf'],
    ['時間割.xlsx', '時間割.xlsx'],
    ['C:\\Users\\me\\Desktop\\plan.PDF', 'plan.PDF'],
    ['../../etc/passwd.txt', 'passwd.txt'],
    ['.hidden.csv', 'hidden.csv'],
    ['what: is "this"?.odt', 'what is this.odt'],
    ['pay\u202efdp.docx', 'pay fdp.docx'],
    ['two\nlines.txt', 'two lines.txt'],
    ['<>.pdf', 'file.pdf'],
  ])('%j becomes %j, which may be used', (name, wanted) => {
    expect(fileNameFor(name)).toBe(wanted)
    expect(FileName.safeParse(wanted).success).toBe(true)
  })
  it.each(['page.html', 'drawing.svg', 'run.exe', 'all.zip', 'macro.docm', 'nothing', '.pdf.', ''])(
    '%j is none that may be put in',
    (name) => {
      expect(fileNameFor(name)).toBeNull()
      expect(FileName.safeParse(name).success).toBe(false)
    },
  )
  it.each([
    'a/b.pdf',
    'a\\b.pdf',
    '.a.pdf',
    'a\u202eb.pdf',
    'a\u0000.pdf',
    `${'a'.repeat(150)}.pdf`,
  ])('%j is refused as it stands', (name) => expect(FileName.safeParse(name).success).toBe(false))
  it('keeps its ending however long it is', () => {
    const name = fileNameFor(`${'long '.repeat(60)}.docx`)
    expect(name?.length).toBeLessThanOrEqual(150)
    expect(kindOfFileName(name ?? '')).toBe('docx')
  })
  it('gives a title', () => {
    expect(titleOfFileName('syllabus_form-2.docx')).toBe('syllabus form 2')
    expect(titleOfFileName('.pdf')).toBe('.pdf')
  })
})

describe('the kinds of files', () => {
  it('are told apart by their endings, each of one kind', () => {
    expect(new Set(fileEndings).size).toBe(fileEndings.length)
    for (const ending of fileEndings)
      expect(kindOfFileName(`x.${ending.toUpperCase()}`)).not.toBeNull()
  })
  it('are none that a browser runs', () => {
    for (const { mediaType } of Object.values(fileKinds))
      expect(mediaType).not.toMatch(/html|svg|javascript|xml$/)
  })
})

it.each([
  [1, '1 bytes'],
  [20_480, '20 kB'],
  [25 * 2 ** 20, '25.0 MB'],
])('%i bytes read as %s', (bytes, words) => expect(sizeInWords(bytes)).toBe(words))

describe('the words that are new in a text', () => {
  it.each([
    ['Who teaches?', 'who  TEACHES', 0],
    ['a b c', 'c b a', 0],
    ['Name: ____', 'Name: Sunniva Drake', 2],
    ['one one', 'one one one', 1],
    ['Wer lehrt?', 'Wer lehrt? Sunniva, dienstags um zehn', 4],
    ['', '潮汐', 1],
  ])('beside %j, %j has %i', (before, after, count) => expect(newWords(before, after)).toBe(count))
})

describe('a file as it stands once it was written', () => {
  const content = 'ab'.repeat(32)
  it('holds what was sent, where it goes out as it is', () => {
    expect(shownOf({ name: 'a.pdf', content })).toEqual({ name: 'a.pdf', content })
  })
  it('goes by what it is made of, where it is filled: another for other texts, the same for the same', () => {
    const filled = (code: string) =>
      shownOf({ name: 'a.docx', content, fields: { '{code}': code } })
    expect(ContentId.safeParse(filled('NAV 110').content).success).toBe(true)
    expect(filled('NAV 110')).toEqual(filled('NAV 110'))
    expect(filled('NAV 110').content).not.toBe(filled('NAV 120').content)
    expect(filled('NAV 110').content).not.toBe(content)
  })
})
