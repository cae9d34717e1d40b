import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { strToU8, zipSync, type Zippable } from 'fflate'
import { describe, expect, it } from 'vitest'
import { fillDocument, readHandout } from './index.ts'

// Written by LibreOffice 7.4, the office suite of Debian 12: a form with fields in braces, a table, slides.
const sample = (name: string): Uint8Array =>
  new Uint8Array(readFileSync(join(import.meta.dirname, 'samples', name)))
const text = (words: string) => new TextEncoder().encode(words)
const read = async (bytes: Uint8Array, name: string) => {
  const result = await readHandout(bytes, name)
  if (!result.ok) throw new Error(result.problems)
  return result.value
}
const refused = async (bytes: Uint8Array, name: string): Promise<string> => {
  const result = await readHandout(bytes, name)
  return result.ok ? 'taken' : result.problems
}
/** A ZIP whose directory says that its last part unpacks to so many bytes (APPNOTE 6.3, 4.3.12), as an honest bomb does. */
const sayingItsLastPartHas = (unpacked: number, zip: Uint8Array): Uint8Array => {
  const said = Buffer.from(zip)
  said.writeUInt32LE(unpacked, said.lastIndexOf(Buffer.from('PK\x01\x02', 'latin1')) + 24)
  return said
}

describe('files as office programs write them', () => {
  it.each([
    ['form.docx', 'docx'],
    ['form.odt', 'odt'],
    ['form.pdf', 'pdf'],
    ['form.rtf', 'rtf'],
    ['table.xlsx', 'xlsx'],
    ['table.ods', 'ods'],
    ['slides.pptx', 'pptx'],
    ['slides.odp', 'odp'],
  ])('%s is what its name says', async (name, kind) =>
    expect((await read(sample(name), name)).kind).toBe(kind),
  )
  it.each([
    ['form.docx', 'form.odt'],
    ['form.odt', 'form.docx'],
    ['table.xlsx', 'table.docx'],
    ['slides.pptx', 'slides.xlsx'],
    ['slides.odp', 'slides.ods'],
    ['form.pdf', 'form.rtf'],
    ['form.rtf', 'form.txt.pdf'],
    ['form.docx', 'form.png'],
    ['form.pdf', 'form.mp4'],
  ])('%s called %s is told', async (held, name) =>
    expect(await refused(sample(held), name)).toMatch(/^it is /),
  )
  const lines = [
    'Syllabus of {code} {title}',
    'What is this course about?',
    'When can students see you?',
    'How is work judged?',
  ]
  it.each(['form.docx', 'form.odt'])(
    'the text of %s is read, a line for each paragraph',
    async (name) => {
      const { words } = await read(sample(name), name)
      for (const line of lines) expect(words?.split('\n')).toContain(line)
      expect(words).toContain('Split: {code}')
    },
  )
})

describe('the text of a PDF', () => {
  /** A PDF 1.4 of one page with such objects; a reader that finds no table of them looks for them itself. */
  const page = (contents: string, more = '', annotations = ''): Uint8Array =>
    text(
      `%PDF-1.4
1 0 obj<</Type/Catalog/Pages 2 0 R${more}>>endobj
2 0 obj<</Type/Pages/Kids[3 0 R]/Count 1>>endobj
3 0 obj<</Type/Page/Parent 2 0 R/MediaBox[0 0 300 300]/Contents 4 0 R/Resources<</Font<</F 5 0 R>>>>${annotations}>>endobj
4 0 obj<</Length ${contents.length}>>stream
${contents}
endstream endobj
5 0 obj<</Type/Font/Subtype/Type1/BaseFont/Helvetica>>endobj
6 0 obj<</Type/Annot/Subtype/Widget/FT/Tx/T(name)/V(Sunniva Drake)/Rect[10 10 90 30]/P 3 0 R>>endobj
trailer<</Root 1 0 R/Size 7>>
%%EOF`,
    )
  it('is read with what was written into the fields of its form', async () => {
    const bytes = page(
      'BT /F 12 Tf 20 200 Td (Who teaches?) Tj ET',
      '/AcroForm<</Fields[6 0 R]>>',
      '/Annots[6 0 R]',
    )
    expect((await read(bytes, 'form.pdf')).words).toBe('Who teaches?\nSunniva Drake')
  })
  it('is read of a Buffer as of plain bytes', async () => {
    const { words } = await read(Buffer.from(sample('form.pdf')), 'form.pdf')
    expect(words).toContain('What is this course about?')
  })
  it.each([
    ['a page without text, as a picture of one', page('0 0 50 50 re f')],
    ['one that is broken off', sample('form.pdf').subarray(0, 9000)],
    ['one that holds nothing', text('%PDF-1.7\n%%EOF')],
  ])('is none of %s, and that is no failure', async (_, bytes) => {
    expect((await read(bytes, 'a.pdf')).words).toBeNull()
  })
})

describe('a document with fields', () => {
  it('has those of a course, however its letters are set, and leaves what is none', async () => {
    expect(await read(sample('form.docx'), 'form.docx')).toMatchObject({
      fields: ['{code}', '{title}', '{term}', '{start, MMM d}', '{instructor}'],
      notFields: ['{see below}'],
      unfillable: null,
    })
  })
  it('is filled in every place, and stays a document whose text can be read', async () => {
    const filled = fillDocument(sample('form.docx'), {
      '{code}': 'NAV 110',
      '{title}': 'Tides & <streams>',
      '{term}': 'Autumn 2026',
      '{start, MMM d}': 'Aug 31',
      '{instructor}': 'Sunniva Drake',
    })
    const { words, kind, fields } = await read(filled, 'form.docx')
    expect(kind).toBe('docx')
    expect(fields).toEqual([])
    expect(words?.split('\n').slice(0, 3)).toEqual([
      'Syllabus of NAV 110 Tides & <streams>',
      'Term: Autumn 2026, from Aug 31 & on',
      'Taught by Sunniva Drake (see {see below})',
    ])
    expect(words).toContain('Split: NAV 110')
  })
  it('filled with the same is the same bytes, at any time', async () => {
    const once = fillDocument(sample('form.docx'), { '{code}': 'NAV 110' })
    expect(Buffer.from(fillDocument(sample('form.docx'), { '{code}': 'NAV 110' }))).toEqual(
      Buffer.from(once),
    )
    expect(Buffer.from(fillDocument(sample('form.docx'), { '{code}': 'NAV 120' }))).not.toEqual(
      Buffer.from(once),
    )
  })
})

/** A document of these parts, beside what makes it one. */
const document = (body: string, parts: Record<string, string> = {}): Uint8Array =>
  zipSync(
    Object.fromEntries(
      Object.entries({
        '[Content_Types].xml':
          '<Types><Override PartName="/word/header1.xml" ContentType="application/vnd.openxmlformats-officedocument.wordprocessingml.header+xml"/><Override PartName="/word/document.xml" ContentType="application/vnd.openxmlformats-officedocument.wordprocessingml.document.main+xml"/></Types>',
        'word/document.xml': `<w:document xmlns:w="w"><w:body>${body}</w:body></w:document>`,
        ...parts,
      }).map(([name, part]) => [name, strToU8(part)]),
    ) as Zippable,
  )
const paragraph = (words: string) => `<w:p><w:r><w:t>${words}</w:t></w:r></w:p>`

describe('what never goes out', () => {
  it.each([
    ['macros', { 'word/vbaProject.bin': 'x' }, /macros/],
    ['controls', { 'word/activeX/activeX1.xml': '<a/>' }, /macros/],
    [
      'a template from elsewhere',
      {
        'word/_rels/settings.xml.rels':
          '<Relationships><Relationship Id="r1" Type="http://x/attachedTemplate" Target="https://evil.example/t.dotm" TargetMode="External"/></Relationships>',
      },
      /from elsewhere/,
    ],
    [
      'a picture from elsewhere, which tells who reads it',
      {
        'word/_rels/document.xml.rels':
          '<Relationships><Relationship TargetMode="External" Type="http://x/image" Id="r1" Target="https://evil.example/p.png"/></Relationships>',
      },
      /from elsewhere/,
    ],
  ])('a document with %s', async (_, parts, why) =>
    expect(await refused(document(paragraph('Hello'), parts), 'a.docx')).toMatch(why),
  )
  it('but a link to elsewhere is only read', async () =>
    expect(
      (
        await read(
          document(paragraph('Hello'), {
            'word/_rels/document.xml.rels':
              '<Relationships><Relationship Id="r1" Type="http://x/hyperlink" Target="https://kestrelsound.example" TargetMode="External"/></Relationships>',
          }),
          'a.docx',
        )
      ).words,
    ).toBe('Hello'))
  it.each([
    ['a PDF that runs', '%PDF-1.7\n1 0 obj<</S/JavaScript/JS(app.alert(1))>>', 'a.pdf', /runs/],
    ['a PDF that launches', '%PDF-1.7\n1 0 obj<</S /Launch>>', 'a.pdf', /runs/],
    ['rich text with an object', '{\\rtf1{\\object\\objemb{\\*\\objdata 01}}}', 'a.rtf', /object/],
    ['text with a bell', 'a\u0007b', 'a.txt', /plain text/],
    ['captions that are none', 'Hello', 'a.vtt', /WebVTT/],
    ['a page called a picture', '<svg xmlns="x"/>', 'a.png', /PNG/],
    ['nothing that is known', 'x', 'a.svg', /ends in one of/],
    ['nothing that is known', 'x', 'a.html', /ends in one of/],
  ])('%s', async (_, words, name, why) => expect(await refused(text(words), name)).toMatch(why))
  it('a name for what runs within packed bytes of a PDF is none', async () => {
    const words = '%PDF-1.7\n1 0 obj<</Length 20>>stream\nx/Launch y/JavaScript\nendstream endobj'
    expect((await read(text(words), 'a.pdf')).kind).toBe('pdf')
  })
  it('text in Latin-1 is told how to be saved', async () =>
    expect(await refused(new Uint8Array([0x63, 0x61, 0x66, 0xe9]), 'a.txt')).toMatch(/UTF-8/))
  it.each([0, 1, 30, 400])('the first %i bytes of a document are none', async (length) =>
    expect(await refused(sample('form.docx').subarray(0, length), 'a.docx')).toMatch(
      /office document/,
    ),
  )
  it('a document that unpacks to more than it may is none', async () => {
    const zip = zipSync({
      '[Content_Types].xml': strToU8('<Types/>'),
      'word/document.xml': new Uint8Array(2 ** 20),
    })
    expect(await refused(sayingItsLastPartHas(210 * 2 ** 20, zip), 'a.docx')).toMatch(
      /no office document/,
    )
    expect(await refused(sayingItsLastPartHas(2 ** 20, zip), 'a.docx')).not.toMatch(
      /no office document/,
    )
  })
})

describe('documents that are odd', () => {
  it.each([
    ['an opening brace too many', 'For {code} and {', null],
    ['a closing brace too many', 'For {code} } now', null],
    ['a loop', '{#each} {code} {/each}', null],
    ['a loop that is not closed', '{#each} {code}', null],
    ['a raw part', '{@raw} {code}', null],
  ])('%s: it is filled, or said not to be, and never throws', async (_, words) => {
    const { fields, unfillable } = await read(document(paragraph(words)), 'a.docx')
    expect(fields.length > 0).toBe(unfillable === null)
    if (fields.length > 0) {
      const filled = fillDocument(document(paragraph(words)), { '{code}': 'NAV 110' })
      expect((await read(filled, 'a.docx')).words).toContain('NAV 110')
    }
  })
  it('what was struck out, a remark and a second form of the same are no text', async () => {
    const body = `${paragraph('Stays')}<w:p><w:del><w:r><w:t>Gone</w:t></w:r></w:del><mc:AlternateContent><mc:Choice><w:r><w:t>Once</w:t></w:r></mc:Choice><mc:Fallback><w:r><w:t>Twice</w:t></w:r></mc:Fallback></mc:AlternateContent></w:p>`
    expect((await read(document(body), 'a.docx')).words).toBe('Stays\nOnce')
  })
  it('entities of its own are not unfolded', async () => {
    const bytes = zipSync({
      '[Content_Types].xml': strToU8(
        'application/vnd.openxmlformats-officedocument.wordprocessingml.document.main+xml',
      ),
      'word/document.xml': strToU8(
        '<!DOCTYPE d [<!ENTITY a "aaaa"><!ENTITY b "&a;&a;">]><w:p><w:t>&b;</w:t></w:p>',
      ),
    })
    expect((await read(bytes, 'a.docx')).words).toBeNull()
  })
  it('a text that is too long is not read at all, in place of its beginning', async () =>
    expect((await read(text('word '.repeat(50_000)), 'a.txt')).words).toBeNull())
  it('fields in the heads of pages are filled as well', async () => {
    const parts = {
      'word/header1.xml': `<w:hdr xmlns:w="w">${paragraph('{code} · {term}')}</w:hdr>`,
    }
    expect((await read(document(paragraph('Hello'), parts), 'a.docx')).fields).toEqual([
      '{code}',
      '{term}',
    ])
  })
})
