import { parse as parseCsv } from 'csv-parse/sync'
import jsonld from 'jsonld'
import { parse } from 'parse5'
import readWorkbook from 'read-excel-file/node'
import type { Log, Result } from 'sarif'
import { describe, expect, it } from 'vitest'
import { rules, type CheckResult } from '@wickerframe/core'
import { earlOf } from './earl.ts'
import { jsonOf, reportFormats } from './formats.ts'
import { pageOf } from './page.ts'
import { placesOf, totalsOf, type Report } from './report.ts'
import { checkedAs, exampleReport, reported, waivedIn } from './report.testing.ts'
import { sarifOf } from './sarif.ts'
import { sinceEarlier } from './since.ts'
import { csvOf } from './table.ts'
import { workbookOf } from './workbook.ts'

const report = exampleReport()
const places = placesOf(report)
const fingerprints = places.map(({ place }) => place.fingerprint)
const gone = [...(report.since?.gone.values() ?? [])].flat()
const nothing: Report = { ...report, courses: [], failed: [], since: null }

it('the example has all that reports differ by', () => {
  expect(places.length).toBeGreaterThan(4)
  expect(gone.length).toBeGreaterThan(0)
  expect(places.map(({ isNew }) => isNew)).toContain(true)
  expect(totalsOf(report)).toMatchObject({ courses: 3, ready: 1, failed: 1 })
})

describe('a SARIF log (OASIS SARIF 2.1.0; held against the published types of @types/sarif)', () => {
  // The compiler holds it against the types; what they leave open is held here, from memory of the standard.
  const log: Log = sarifOf(report) as Log
  const [run] = log.runs
  const results: Result[] = run?.results ?? []
  it('has a result for each place, by its stable fingerprint, and one for each that is gone', () => {
    const told = results.filter(({ kind }) => kind !== 'review')
    expect(
      told.map(({ partialFingerprints }) => partialFingerprints?.['wickerframeFinding/v1']),
    ).toEqual([...fingerprints, ...gone.map(({ fingerprint }) => fingerprint)])
    expect(told.filter(({ baselineState }) => baselineState === 'absent')).toHaveLength(gone.length)
    expect(told.filter(({ baselineState }) => baselineState === 'new')).toHaveLength(
      places.filter(({ isNew }) => isNew).length,
    )
  })
  it('names each rule once, and each result its rule, its level and where it is', () => {
    const known = run?.tool.driver.rules ?? []
    expect(known.map(({ id }) => id)).toEqual(rules.map(({ id }) => id))
    for (const { ruleId, ruleIndex, level, kind, locations } of results) {
      expect(known[ruleIndex ?? -1]?.id).toBe(ruleId)
      // 3.27.10: what is no failure has no level.
      expect(kind === undefined ? ['error', 'warning', 'note'] : ['none']).toContain(level)
      const uri = locations?.[0]?.physicalLocation?.artifactLocation?.uri ?? ''
      expect(new URL(uri, 'file:///').href).toContain(uri)
    }
  })
  it('doubles braces, which would stand for placeholders (3.11.5)', () => {
    for (const { message } of results)
      expect(message.text?.replaceAll('{{', '').replaceAll('}}', '')).not.toMatch(/[{}]/)
    expect(JSON.stringify(log)).toContain('{{0}}')
  })
  it('says what could not be checked, and that it did not go well', () => {
    expect(run?.invocations).toMatchObject([
      {
        executionSuccessful: false,
        toolExecutionNotifications: [{ message: { text: expect.stringContaining('expected') } }],
      },
    ])
    expect(sarifOf(nothing).runs[0]?.invocations[0]?.executionSuccessful).toBe(true)
  })
  it('shows a waiver as a suppression, and a success criterion as a tag', () => {
    const [result] = report.courses.flatMap((course) =>
      course.result.course.id === 'b' ? [waivedIn(course.result, 'due-missing')] : [],
    )
    if (!result) throw new Error('no course b')
    const waived = sarifOf({ ...nothing, courses: [reported(result)] })
    expect(waived.runs[0]?.results).toMatchObject([
      { suppressions: [{ kind: 'external', status: 'accepted', justification: 'agreed' }] },
    ])
    const alt = run?.tool.driver.rules?.find(({ id }) => id === 'alt-missing')
    expect(alt?.properties?.tags).toContain('WCAG 2.2 1.1.1 Non-text Content')
  })
})

describe('an EARL report (W3C, EARL 1.0 Schema; read by jsonld, the reference library of JSON-LD)', () => {
  const earl = 'http://www.w3.org/ns/earl#'
  interface Node {
    '@id'?: string
    '@type'?: string[]
    [property: string]: unknown
  }
  const nodes = async (of: Report): Promise<Node[]> =>
    (await jsonld.expand(earlOf(of) as jsonld.JsonLdDocument)) as Node[]
  const ofType = (all: Node[], type: string) =>
    all.filter((node) => node['@type']?.includes(earl + type))
  const iri = (node: Node, property: string) =>
    (node[earl + property] as Node[] | undefined)?.[0]?.['@id']
  it('asserts each outcome of a test on a subject by this program, as the schema wants it', async () => {
    const all = await nodes(report)
    const known = (type: string) => new Set(ofType(all, type).map((node) => node['@id']))
    const assertions = ofType(all, 'Assertion')
    expect(assertions.length).toBeGreaterThan(fingerprints.length)
    for (const assertion of assertions) {
      expect(known('Assertor')).toContain(iri(assertion, 'assertedBy'))
      expect(known('TestSubject')).toContain(iri(assertion, 'subject'))
      expect(known('TestRequirement')).toContain(iri(assertion, 'test'))
      const [result] = assertion[`${earl}result`] as Node[]
      expect(['passed', 'failed', 'cantTell', 'inapplicable', 'untested']).toContain(
        iri(result ?? {}, 'outcome')?.slice(earl.length),
      )
    }
  })
  it('names a failure for each place, by its fingerprint, and passes of rules that found nothing', async () => {
    const results = ofType(await nodes(report), 'Assertion').map(
      (assertion) => (assertion[`${earl}result`] as Node[])[0] ?? {},
    )
    const failed = results.filter((result) => iri(result, 'outcome') === `${earl}failed`)
    expect(
      failed.map(
        (result) =>
          (result['http://purl.org/dc/terms/identifier'] as { '@value': string }[])[0]?.['@value'],
      ),
    ).toEqual(fingerprints)
    expect(
      results.filter((result) => iri(result, 'outcome') === `${earl}passed`).length,
    ).toBeGreaterThan(20)
  })
  it('says which success criterion a rule about access is part of', async () => {
    const rule = (await nodes(nothing)).find(
      (node) => node['@id'] === 'urn:wickerframe:rule:contrast-inline',
    )
    expect(rule?.['http://purl.org/dc/terms/isPartOf']).toEqual([
      { '@id': 'https://www.w3.org/TR/WCAG22/#contrast-minimum' },
    ])
  })
})

describe('a CSV file (RFC 4180, read by csv-parse)', () => {
  const rows = (of: Report) =>
    parseCsv(csvOf(of), { columns: true, bom: true }) as Record<string, string>[]
  it('has a row for each place and each that is gone, whatever stands in names', () => {
    expect(rows(report).map(({ fingerprint }) => fingerprint)).toEqual([
      ...fingerprints,
      ...gone.map(({ fingerprint }) => fingerprint),
    ])
    expect(csvOf(nothing).trimEnd().split('\r\n')).toHaveLength(1)
  })
  it('starts no cell with what a spreadsheet would run', () => {
    for (const row of rows(report))
      for (const value of Object.values(row)) expect(value).not.toMatch(/^[=+\-@\t\r]/)
  })
})

describe('a spreadsheet (Office Open XML, read by read-excel-file)', () => {
  it('has the courses and what was found in them, as text and numbers', async () => {
    const sheets = await readWorkbook(Buffer.from(await workbookOf(report)))
    expect(sheets.map(({ sheet }) => sheet)).toEqual(['Courses', 'Findings'])
    const [courses, findings] = sheets.map(({ data }) => data)
    expect(courses).toHaveLength(1 + report.courses.length + report.failed.length)
    expect(courses?.[2]?.[9]).toBe(report.courses[1]?.result.counts.openMusts)
    expect(findings?.slice(1).map((row) => row.at(-1))).toEqual([
      ...fingerprints,
      ...gone.map(({ fingerprint }) => fingerprint),
    ])
  })
})

describe('a page to print', () => {
  interface Tree {
    nodeName: string
    value?: string
    attrs?: { name: string; value: string }[]
    childNodes?: Tree[]
  }
  const walk = (node: Tree): Tree[] => [node, ...(node.childNodes ?? []).flatMap(walk)]
  const tree = walk(parse(pageOf(report)) as unknown as Tree)
  it('tells every finding, and runs and fetches nothing', () => {
    expect(
      tree.filter(({ nodeName }) => /^(script|img|link|iframe|object)$/.test(nodeName)),
    ).toEqual([])
    expect(tree.flatMap(({ attrs }) => attrs ?? []).map(({ name }) => name)).not.toContain(
      'onclick',
    )
    const words = tree.map(({ value }) => value ?? '').join('\u241f')
    for (const { finding } of places)
      expect(words).toContain(finding.message.replaceAll('\r\n', '\n'))
    expect(words).toContain('@NAV & "110" <Coastal>')
  })
  it('has a heading for each course, to which the overview leads', () => {
    const ids = tree.flatMap(({ attrs }) => attrs ?? []).filter(({ name }) => name === 'id')
    const leads = tree.flatMap(({ attrs }) => attrs ?? []).filter(({ name }) => name === 'href')
    expect(leads.map(({ value }) => value)).toEqual(ids.map(({ value }) => `#${value}`))
    expect(ids).toHaveLength(report.courses.length)
  })
})

describe('what differs since an earlier report', () => {
  const before = checkedAs('b', ({ item }) => void (item('assignment', 2).dueAt = null))
  const after = checkedAs('b', ({ module }) => void (module('week', 2).name = 'wk 2'))
  const all = ({ findings }: CheckResult) =>
    findings.flatMap((finding) => finding.places.map((place) => place.fingerprint))
  it('is nothing between a check and itself', () => {
    const { fresh, gone: left } = sinceEarlier([before], [before])
    expect([[...(fresh.get('b') ?? [])], left.get('b')]).toEqual([[], []])
  })
  it('is what is new and what is gone, which turn round when time does', () => {
    const forward = sinceEarlier([after], [before])
    const back = sinceEarlier([before], [after])
    expect([...(forward.fresh.get('b') ?? [])]).toEqual(
      (back.gone.get('b') ?? []).map(({ fingerprint }) => fingerprint),
    )
    expect(forward.fresh.get('b')?.size).toBeGreaterThan(0)
    expect(forward.gone.get('b')?.length).toBeGreaterThan(0)
  })
  it('is everything for a course that was not there before', () => {
    expect([...(sinceEarlier([after], []).fresh.get('b') ?? [])]).toEqual(all(after))
  })
})

it.each(Object.entries(reportFormats))(
  '%s tells of no course, and tells the same twice',
  async (_, format) => {
    expect((await format.write(nothing)).length).toBeGreaterThan(0)
    if (format.extension !== 'xlsx')
      expect(await format.write(report)).toEqual(await format.write(report))
  },
)
it('the checks in JSON are what a later report is compared with', () => {
  const kept = JSON.parse(JSON.stringify(jsonOf(report))) as ReturnType<typeof jsonOf>
  const { fresh, gone: left } = sinceEarlier(
    report.courses.map(({ result }) => result),
    kept.courses,
  )
  expect([...fresh.values()].flatMap((one) => [...one])).toEqual([])
  expect([...left.values()].flat()).toEqual([])
})
