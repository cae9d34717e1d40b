import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { Ajv2020, type ValidateFunction } from 'ajv/dist/2020.js'
import addFormats from 'ajv-formats'
import { afterAll, describe, expect, it } from 'vitest'
import { main } from './main.ts'

const docs = fileURLToPath(new URL('../../docs/schema', import.meta.url))
const example = (n: number, kind: string) => join(docs, 'examples', `${n}-${kind}.json`)
const documents = (n: number) => [
  '--template',
  example(n, 'template'),
  '--facts',
  example(n, 'facts'),
  '--course',
  example(n, 'course'),
]
let stdin: Uint8Array = new Uint8Array()
const run = async (...args: string[]) => {
  let out = ''
  let error = ''
  const code = await main(args, {
    out: (text) => (out += text),
    error: (text) => (error += text),
    input: () => Promise.resolve(stdin),
    now: () => new Date('2026-09-16T12:00:00Z'),
  })
  return { code, out, error }
}
const folder = mkdtempSync(join(tmpdir(), 'wickerframe-cli-'))
afterAll(() => rmSync(folder, { recursive: true }))
const written = (name: string, content: string | Buffer): string => {
  writeFileSync(join(folder, name), content)
  return join(folder, name)
}
const schema = (name: string): object =>
  JSON.parse(readFileSync(join(docs, `${name}.schema.json`), 'utf8'))
const compiled = new Map<string, ValidateFunction>()
const validates = (name: string, value: unknown): boolean => {
  let validate = compiled.get(name)
  if (!validate) {
    const ajv = new Ajv2020({ strict: false })
    addFormats.default(ajv)
    compiled.set(name, (validate = ajv.compile(schema(name))))
  }
  return validate(value)
}

describe('check', () => {
  it('exits 0 for a ready course, 1 for open musts', async () => {
    expect((await run('check', ...documents(1), '--as-of', '2026-09-16')).code).toBe(0)
    expect((await run('check', ...documents(2), '--as-of', '2026-09-16')).code).toBe(1)
  })
  it('exits 3 when no must is open but something could not be told', async () => {
    const course = JSON.parse(readFileSync(example(3, 'course'), 'utf8'))
    for (const module of course.modules) module.name = module.name.replace(/^(Unit \d).*/, '$1')
    const file = written('units.json', JSON.stringify(course))
    const { code, out } = await run(
      'check',
      '--template',
      example(3, 'template'),
      '--facts',
      example(3, 'facts'),
      '--course',
      file,
      '--as-of',
      '2026-08-01',
    )
    expect(out).toContain('Say which weeks each unit covers')
    expect([1, 3]).toContain(code)
    expect(code).toBe(out.includes('Open must') ? 1 : 3)
  })
  it('prints JSON that follows its published schema, the same every time', async () => {
    const first = await run(
      'check',
      ...documents(2),
      '--as-of',
      '2026-09-16',
      '--format',
      'json',
      '--pairs',
    )
    expect(
      await run('check', ...documents(2), '--as-of', '2026-09-16', '--format', 'json', '--pairs'),
    ).toEqual(first)
    const result = JSON.parse(first.out)
    expect(validates('check', result)).toBe(true)
    expect(Object.keys(result)).toEqual(
      expect.arrayContaining(['outcomes', 'findings', 'pairs', 'counts']),
    )
  })
  it('looks ahead: more is due on a later date', async () => {
    const open = async (asOf: string) =>
      JSON.parse((await run('check', ...documents(2), '--as-of', asOf, '--format', 'json')).out)
        .counts.notDueYet
    expect(await open('2026-08-01')).toBeGreaterThan(await open('2026-10-20'))
  })
})

describe('expand', () => {
  it('prints the expected course with its names and dates', async () => {
    const expected = JSON.parse(
      (await run('expand', '--template', example(2, 'template'), '--facts', example(2, 'facts')))
        .out,
    )
    expect(expected.course.name).toBe('SAF 150 Liferaft & Flare Drill · Autumn 2026')
    expect(expected.weeks).toHaveLength(8)
    expect(expected.parts[1]).toMatchObject({
      name: 'Week 1 · Aug 31 – Sep 6 · The muster list',
      firstDay: '2026-08-31',
      opensAt: '2026-08-31T03:00:00Z',
    })
  })
})

const named = async (names: string | Uint8Array, ...args: string[]) => {
  stdin = typeof names === 'string' ? new TextEncoder().encode(names) : names
  return run('names', ...args)
}
const byWeek = ['--format', 'Week {week} · {dates} · {topic}'] as const

describe('names', () => {
  it('prints one JSON object a line, by its published schema, at a place that is known', async () => {
    const { code, out } = await named(
      '\ufeffwk 3 - tides (9/14 to 9/20)\r\n\r\nWeek 3 · Sep 14 – Sep 20 · The compass\nweek 3 · Sep 14 - Sep 20 · Fog\nNAV 205 Week 3: Stars\n',
      ...byWeek,
      '--context',
      example(1, 'name-context'),
    )
    const lines = out
      .trimEnd()
      .split('\n')
      .map((line) => JSON.parse(line))
    expect([code, lines.map((line) => line.verdict)]).toEqual([
      0,
      ['mendable', 'follows', 'small-differences', 'unreadable'],
    ])
    expect(lines[0]).toMatchObject({
      name: 'wk 3 - tides (9/14 to 9/20)',
      mended: 'Week 3 · Sep 14 – Sep 20 · tides',
      fields: [
        { field: 'week', state: 'right' },
        { field: 'dates', state: 'right' },
        { field: 'topic', state: 'right', text: 'tides' },
      ],
    })
    for (const line of lines) expect(validates('judged-name', line)).toBe(true)
  })
  it('judges names of a whole course where no place is given, and without any context at all', async () => {
    const anywhere = (
      await named(
        'Unit 2: Drift\nUnit 9: Nowhere\n',
        '--format',
        'Unit {unit}: {topic}',
        '--context',
        example(3, 'name-context'),
      )
    ).out
      .trimEnd()
      .split('\n')
      .map((line) => JSON.parse(line))
    expect(anywhere.map((line) => line.verdict)).toEqual(['follows', 'unreadable'])
    const bare = JSON.parse(
      (await named('lab 3 - Flares\n', '--format', 'Lab {number}: {topic}')).out,
    )
    expect(bare).toMatchObject({ verdict: 'mendable', mended: 'Lab 3: Flares' })
  })
  it('infers formats with their coverage, by its published schema', async () => {
    const { out } = await named(
      'Week 1: Ropes\nWeek 2: Knots\nWeek 3: Splices\nStart here\n',
      '--infer',
    )
    expect(JSON.parse(out)).toMatchObject({
      names: 4,
      formats: [{ format: 'Week {week}: {topic}', coverage: 0.75, outliers: ['Start here'] }],
    })
    expect(validates('inferred-formats', JSON.parse(out))).toBe(true)
  })
  it('handles thousands of names, and one that is far too long, without failing', async () => {
    const { code, out } = await named(
      `${'x'.repeat(100_000)}\n${'Week 3: Tides\n'.repeat(2_500)}`,
      ...byWeek,
    )
    const lines = out.trimEnd().split('\n')
    expect([code, lines.length, JSON.parse(lines[0] ?? '').reasons]).toEqual([
      0,
      2_501,
      ['it is longer than 2,000 characters'],
    ])
  })
  it('points into a format that is wrong', async () => {
    const { code, error } = await named('x\n', '--format', 'Week {wek} · {dates')
    expect([code, error]).toEqual([
      2,
      expect.stringContaining('character 7: unknown field wek; did you mean week?'),
    ])
    expect(error.split('\n')[2]).toBe('        ^')
  })
  it.each([
    ['no format', [], 'a\n', /--format is missing/],
    ['an empty list to infer from', ['--infer'], '\n \n', /found no name/],
    ['bytes that are not UTF-8', [...byWeek], new Uint8Array([0xe9, 0x0a]), /not UTF-8/],
    [
      'a place that is not in the calendar',
      [...byWeek, '--context', 'late'],
      'a\n',
      /at \/place\/week: found 40; expected a week of the course, 1 to 16/,
    ],
    [
      'an unknown part of the place',
      [...byWeek, '--context', 'strange'],
      'a\n',
      /at \/place\/colour/,
    ],
    ['an option of another command', [...byWeek, '--weeks', '3'], 'a\n', /names takes no --weeks/],
  ] as const)('%s: exit 2', async (_, args, names, message) => {
    const context = JSON.parse(readFileSync(example(1, 'name-context'), 'utf8'))
    const files: Record<string, string> = {
      late: written('late.json', JSON.stringify({ ...context, place: { week: 40 } })),
      strange: written('strange.json', JSON.stringify({ ...context, place: { colour: 'red' } })),
    }
    const { code, error, out } = await named(names, ...args.map((arg) => files[arg] ?? arg))
    expect([code, out]).toEqual([2, ''])
    expect(error).toMatch(message)
  })
})

describe('calendar', () => {
  it('prints weeks, units and days, by its published schema', async () => {
    const { code, out } = await run(
      'calendar',
      '--term',
      example(1, 'term'),
      '--weeks',
      '16',
      '--meeting-days',
      'tuesday,thursday',
    )
    const calendar = JSON.parse(out)
    expect(code).toBe(0)
    expect(validates('calendar', calendar)).toBe(true)
    expect(calendar.weeks[2]).toMatchObject({
      number: 3,
      first: '2026-09-14',
      last: '2026-09-20',
      classDays: ['2026-09-15', '2026-09-17'],
    })
    expect(calendar.units.map((unit: { weeks: number[] }) => unit.weeks.length)).toEqual([
      4, 4, 4, 4,
    ])
    // America/Halifax keeps daylight time in August, and standard time in January (IANA time zone database).
    expect([calendar.opensAt, calendar.closesAt]).toEqual([
      '2026-08-31T03:00:00Z',
      '2027-01-09T03:59:00Z',
    ])
  })
  it('takes a term without a schema line, a session and a second term', async () => {
    const { schema: _, ...term } = JSON.parse(readFileSync(example(1, 'term'), 'utf8'))
    const bare = written('term.json', JSON.stringify(term))
    expect(
      JSON.parse(
        (await run('calendar', '--term', bare, '--session', 'second-half', '--units', '2')).out,
      ).weeks,
    ).toHaveLength(8)
    const next = written(
      'next.json',
      JSON.stringify({
        ...term,
        code: 'spring-2027',
        title: 'Spring 2027',
        firstDay: '2027-01-11',
        lastDay: '2027-04-30',
        sessions: [],
      }),
    )
    expect(
      JSON.parse(
        (await run('calendar', '--term', bare, '--next-term', next, '--weeks', '30')).out,
      ).weeks.at(-1),
    ).toMatchObject({ number: 30, first: '2027-04-12' })
  })
  it.each([
    [['--weeks', '17'], /at most 16, the weeks of Autumn 2026/],
    [['--weeks', 'many'], /a whole number from 1 to 120/],
    [['--session', 'third-half'], /expected first-half, seven-weeks, second-half/],
    [['--meeting-days', 'freitag'], /found freitag; expected weekdays/],
    [['--units', '0'], /a whole number from 1 to 60/],
  ])('%j: exit 2', async (args, message) => {
    const { code, error } = await run('calendar', '--term', example(1, 'term'), ...args)
    expect([code, error]).toEqual([2, expect.stringMatching(message)])
  })
})

describe('plan', () => {
  const json = (path: string) => JSON.parse(readFileSync(path, 'utf8'))
  const shell = () =>
    written(
      'shell.json',
      JSON.stringify({
        ...json(example(1, 'course')),
        modules: [],
        stray: [],
        homePage: null,
        navigation: [],
        settings: undefined,
        grading: undefined,
        name: 'New',
        label: '',
      }),
    )
  const out = (name: string) => join(folder, name)
  /** The first example's template with other words in one block and another name of the week. */
  const second = () => {
    const template = json(example(1, 'template'))
    template.parts.find((part: { repeat?: object }) => part.repeat).name = 'Wk {week} · {topic}'
    template.parts[0].items[0].blocks.find(
      (block: { kind: string }) => block.kind === 'fixed-text',
    ).html = '<p>The college says it anew.</p>'
    return written('template-v2.json', JSON.stringify(template))
  }
  const facts = ['--facts', example(1, 'facts')]
  const deploy = async () => {
    const { code, out: text } = await run(
      'plan',
      '--to',
      example(1, 'template'),
      ...facts,
      '--course',
      shell(),
      '--write-course',
      out('deployed.json'),
      '--write-base',
      out('base.json'),
    )
    expect(code).toBe(0)
    return JSON.parse(text)
  }
  /** The deployed course with a topic of the instructor's and fixed text put differently. */
  const edited = () => {
    const course = json(out('deployed.json'))
    course.modules[3].name = course.modules[3].name.replace(/[^·]*$/, ' Fog signals')
    const welcome = course.modules[0].children[0]
    welcome.html = welcome.html.replace(
      /(data-wicker-block="how-it-runs"[^>]*>).*?(<\/div>)/s,
      '$1<p>It runs my way.</p>$2',
    )
    return written('edited.json', JSON.stringify(course))
  }

  it('deploys into a shell, updates an edited course, and then has nothing more to do; all by the published schemas', async () => {
    const first = await deploy()
    expect([
      validates('plan', first),
      validates('base', json(out('base.json'))),
      validates('course', json(out('deployed.json'))),
    ]).toEqual([true, true, true])
    expect(first.steps.some((step: { does: string }) => step.does === 'create')).toBe(true)
    const update = async (...more: string[]) =>
      JSON.parse(
        (
          await run(
            'plan',
            '--from',
            example(1, 'template'),
            '--to',
            second(),
            ...facts,
            '--base',
            out('base.json'),
            '--course',
            edited(),
            ...more,
          )
        ).out,
      )
    const plan = await update(
      '--conflicts',
      'keep',
      '--write-course',
      out('updated.json'),
      '--write-base',
      out('base-2.json'),
    )
    expect([plan.state, plan.undecided]).toEqual(['ready', 0])
    const course = json(out('updated.json'))
    expect(course.modules[3].name).toMatch(/^Wk \d+ · Fog signals$/)
    expect(course.modules[0].children[0].html).toContain('It runs my way.')
    expect((await update()).undecided).toBe(1)
    const taken = await update('--conflicts', 'take', '--write-course', out('taken.json'))
    expect([
      taken.undecided,
      json(out('taken.json')).modules[0].children[0].html.includes('The college says it anew.'),
    ]).toEqual([0, true])
    const again = JSON.parse(
      (
        await run(
          'plan',
          '--to',
          second(),
          ...facts,
          '--base',
          out('base-2.json'),
          '--course',
          out('updated.json'),
          '--conflicts',
          'keep',
        )
      ).out,
    )
    expect([again.state, again.changes]).toEqual(['nothing-to-do', []])
  })
  it('takes the course as it stood after the deployment for a base, and none at all', async () => {
    await deploy()
    const as = async (...base: string[]) =>
      JSON.parse(
        (
          await run(
            'plan',
            '--from',
            example(1, 'template'),
            '--to',
            second(),
            ...facts,
            ...base,
            '--course',
            edited(),
            '--conflicts',
            'keep',
          )
        ).out,
      )
    const [byBase, byCourse, byNothing] = [
      await as('--base', out('base.json')),
      await as('--base', out('deployed.json')),
      await as(),
    ]
    expect(byCourse.changes).toEqual(byBase.changes)
    expect(byNothing.steps.length).toBeGreaterThan(10)
  })
  it('takes over a course that never saw Wickerframe: nothing is made twice', async () => {
    const { code, out: text } = await run(
      'plan',
      '--to',
      example(3, 'template'),
      '--facts',
      example(3, 'facts'),
      '--course',
      example(3, 'course'),
    )
    const plan = JSON.parse(text)
    expect([
      code,
      plan.changes,
      plan.steps.some((step: { does: string }) => step.does === 'adopt'),
    ]).toEqual([0, [], true])
  })
  it.each([
    [
      'no template',
      ['--facts', example(1, 'facts'), '--course', example(1, 'course')],
      /--to is missing/,
    ],
    [
      'a base of another kind',
      [
        '--to',
        example(1, 'template'),
        ...facts,
        '--course',
        example(1, 'course'),
        '--base',
        example(1, 'facts'),
      ],
      /at \/schema: found "wickerframe.facts\/1"/,
    ],
    [
      'a course as base without its template',
      [
        '--to',
        example(1, 'template'),
        ...facts,
        '--course',
        example(1, 'course'),
        '--base',
        example(1, 'course'),
      ],
      /--from is missing/,
    ],
    [
      'another word for conflicts',
      [
        '--to',
        example(1, 'template'),
        ...facts,
        '--course',
        example(1, 'course'),
        '--conflicts',
        'merge',
      ],
      /expected keep or take/,
    ],
    [
      'a file that cannot be written',
      [
        '--to',
        example(1, 'template'),
        ...facts,
        '--course',
        example(1, 'course'),
        '--write-course',
        '/nowhere/at/all.json',
      ],
      /cannot be written \(ENOENT\)/,
    ],
    [
      'an option of another command',
      ['--to', example(1, 'template'), ...facts, '--course', example(1, 'course'), '--pairs'],
      /plan takes no --pairs/,
    ],
  ] as const)('%s: exit 2, and nothing is printed', async (_, args, message) => {
    const { code, error, out: text } = await run('plan', ...args)
    expect([code, text]).toEqual([2, ''])
    expect(error).toMatch(message)
  })
})

describe('rules and mend', () => {
  it('lists the catalogue, by its published schema', async () => {
    const { code, out } = await run('rules')
    const document = JSON.parse(out)
    expect([code, validates('rules', document)]).toEqual([0, true])
    expect(
      document.rules.find((rule: { id: string }) => rule.id === 'module-missing'),
    ).toMatchObject({ group: 'structure', strength: 'must', mends: expect.any(Boolean) })
  })
  const renamed = () => {
    const course = JSON.parse(readFileSync(example(1, 'course'), 'utf8'))
    course.modules[3].name = 'wk 3 - the compass'
    return written('renamed.json', JSON.stringify(course))
  }
  const mend = (...more: string[]) =>
    run(
      'mend',
      '--template',
      example(1, 'template'),
      '--facts',
      example(1, 'facts'),
      '--course',
      renamed(),
      '--as-of',
      '2026-09-16',
      ...more,
    )
  it('mends a name in a course document, by its published schema, and tells the counts before and after', async () => {
    const { code, out } = await mend(
      '--rules',
      'module-name',
      '--write-course',
      join(folder, 'mended.json'),
    )
    const document = JSON.parse(out)
    expect([code, validates('mends', document), document.mended.length]).toEqual([0, true, 1])
    expect(document.after.met).toBeGreaterThan(document.before.met)
    expect(JSON.parse(readFileSync(join(folder, 'mended.json'), 'utf8')).modules[3].name).toMatch(
      /^Week 3 · Sep 14 – Sep 20 · the compass$/i,
    )
    const again = JSON.parse(
      (
        await run(
          'mend',
          '--template',
          example(1, 'template'),
          '--facts',
          example(1, 'facts'),
          '--course',
          join(folder, 'mended.json'),
          '--as-of',
          '2026-09-16',
          '--rules',
          'module-name',
        )
      ).out,
    )
    expect(again.mended).toEqual([])
  })
  it('mends one finding by its fingerprint, in a course that never saw Wickerframe', async () => {
    const checked = JSON.parse(
      (
        await run(
          'check',
          '--template',
          example(3, 'template'),
          '--facts',
          example(3, 'facts'),
          '--course',
          example(3, 'course'),
          '--as-of',
          '2026-09-16',
          '--format',
          'json',
        )
      ).out,
    )
    const finding = checked.findings.find((finding: { places: { mend: object[] | null }[] }) =>
      finding.places.some((place) => place.mend && place.mend.length > 0),
    )
    if (!finding)
      return expect(
        checked.findings.every((finding: { places: { mend: null }[] }) =>
          finding.places.every((place) => place.mend === null),
        ),
      ).toBe(true)
    const document = JSON.parse(
      (
        await run(
          'mend',
          '--template',
          example(3, 'template'),
          '--facts',
          example(3, 'facts'),
          '--course',
          example(3, 'course'),
          '--as-of',
          '2026-09-16',
          '--findings',
          finding.fingerprint,
        )
      ).out,
    )
    expect(document.mended.length + document.left.length).toBe(finding.places.length)
    expect(document.mended.length).toBeGreaterThan(0)
  })
  it.each([
    ['a rule that is none', ['--rules', 'item-mising'], /--rules: found item-mising/],
    [
      'a finding that is not open',
      ['--findings', 'feedfeedfeedfeed'],
      /--findings: found feedfeedfeedfeed/,
    ],
    ['an option of another command', ['--pairs'], /mend takes no --pairs/],
  ] as const)('%s: exit 2', async (_, args, message) => {
    const { code, out, error } = await mend(...args)
    expect([code, out]).toEqual([2, ''])
    expect(error).toMatch(message)
  })
})

describe('the examples', () => {
  it.each([1, 2, 3])('%i follow the published schemas', (n) => {
    for (const kind of ['template', 'facts', 'course', 'name-context'])
      expect(validates(kind, JSON.parse(readFileSync(example(n, kind), 'utf8')))).toBe(true)
  })
})

describe('unusable input', () => {
  const facts = (change: object) =>
    written(
      'facts.json',
      JSON.stringify({ ...JSON.parse(readFileSync(example(1, 'facts'), 'utf8')), ...change }),
    )
  it.each([
    ['no such file', () => join(folder, 'nowhere.json'), /nowhere\.json: found no such file/],
    [
      'malformed JSON',
      () => written('bad.json', '{"schema": '),
      /found .*expected a JSON document/,
    ],
    [
      'another encoding',
      () => written('latin.json', Buffer.from([0x7b, 0x22, 0xe9, 0x22, 0x7d])),
      /not UTF-8/,
    ],
    [
      'nonsense',
      () => written('noise.json', Buffer.alloc(1_000_000, 'x')),
      /expected a JSON document/,
    ],
    [
      'an unknown field',
      () => facts({ colour: 'red' }),
      /at \/colour: found "red"; expected no such field/,
    ],
    ['a wrong type', () => facts({ weeks: 'sixteen' }), /at \/weeks: found "sixteen"; expected/],
    [
      'a time zone that is none',
      () =>
        facts({
          term: {
            ...JSON.parse(readFileSync(example(1, 'facts'), 'utf8')).term,
            timeZone: 'Mars/Base',
          },
        }),
      /at \/term\/timeZone: found "Mars\/Base"; expected an IANA time zone/,
    ],
    [
      'more weeks than the term has',
      () => facts({ weeks: 30 }),
      /at \/weeks: found 30; expected at most 16/,
    ],
    [
      'an array nested very deep',
      () => written('deep.json', '['.repeat(50_000) + ']'.repeat(50_000)),
      /expected/,
    ],
  ])('%s: exit 2, with the place and what was expected', async (_, file, message) => {
    const { code, error, out } = await run(
      'check',
      '--template',
      example(1, 'template'),
      '--facts',
      file(),
      '--course',
      example(1, 'course'),
    )
    expect(error).toMatch(message)
    expect([code, out]).toEqual([2, ''])
  })
  it.each([
    [[]],
    [['frob']],
    [['check']],
    [['check', '--frob']],
    [['check', ...documents(1), '--as-of', '2026-02-30']],
    [['check', ...documents(1), '--format', 'xml']],
  ])('%j: exit 2', async (args) => {
    expect((await run(...args)).code).toBe(2)
  })
})

describe('help', () => {
  it('is given for all of it, and for each command alone, by either name of the option', async () => {
    const all = await run('--help')
    expect(all.code).toBe(0)
    expect((await run('-h')).out).toBe(all.out)
    for (const name of ['expand', 'check', 'rules', 'mend', 'plan', 'names', 'calendar']) {
      expect(all.out).toContain(`wickerframe ${name}`)
      const { code, out } = await run(name, '-h')
      expect([name, code]).toEqual([name, 0])
      expect(out).toContain(`wickerframe ${name}`)
      expect(out).not.toContain(`wickerframe ${name === 'expand' ? 'check' : 'expand'}`)
      expect((await run(name, '--help')).out).toBe(out)
    }
  })
  it('tells an unknown option of a command how that command is used', async () => {
    const { code, error } = await run('calendar', '--pairs')
    expect(code).toBe(2)
    expect(error).toMatch(/calendar takes no --pairs[\s\S]*--meeting-days/)
  })
  it('tells the version', async () => {
    expect((await run('--version')).out).toMatch(/^\d+\.\d+\.\d+\n$/)
  })
})

describe('a file named -', () => {
  it('is standard input', async () => {
    stdin = readFileSync(example(1, 'course'))
    const [, , , , , path] = documents(1)
    const fromFile = await run('check', ...documents(1), '--format', 'json')
    const fromInput = await run(
      'check',
      ...documents(1).map((word) => (word === path ? '-' : word)),
      '--format',
      'json',
    )
    expect(fromInput).toEqual(fromFile)
  })
  it('can be one file only', async () => {
    stdin = readFileSync(example(1, 'template'))
    const { code, error } = await run('expand', '--template', '-', '--facts', '-')
    expect(code).toBe(2)
    expect(error).toContain('standard input can be read for one file only')
  })
  it('is told as such when nothing of use comes', async () => {
    stdin = new Uint8Array()
    const { code, error } = await run('expand', '--template', '-', '--facts', '-')
    expect(code).toBe(2)
    expect(error).toMatch(/^wickerframe: -: found/)
  })
})
