import * as fc from 'fast-check'
import munkres from 'munkres-js'
import { describe, expect, it } from 'vitest'
import { itemsIn } from '../course/index.ts'
import { analysePage } from '../page/index.ts'
import { expectationFor } from '../check/index.ts'
import { exampleCourse } from '../rules/example/exampleCourse.ts'
import type { ExampleCourse } from '../rules/index.ts'
import { calibrated } from './confidence.ts'
import { tellingAmong } from './evidence.ts'
import { assign, fewestMoves, nameLikeness, pairCourse } from './index.ts'

describe('assignment', () => {
  it('reaches the total of a general-purpose library on random matrices (munkres-js)', () => {
    fc.assert(
      fc.property(
        fc
          .integer({ min: 1, max: 7 })
          .chain((size) =>
            fc.array(
              fc.array(fc.integer({ min: 1, max: 50 }), { minLength: size, maxLength: size }),
              { minLength: size, maxLength: size },
            ),
          ),
        (scores) => {
          const ours = assign(scores).reduce<number>(
            (sum, column, row) => sum + (column === null ? 0 : (scores[row]?.[column] ?? 0)),
            0,
          )
          const theirs = munkres(scores.map((row) => row.map((score) => -score))).reduce(
            (sum: number, [row, column]: [number, number]) => sum + (scores[row]?.[column] ?? 0),
            0,
          )
          expect(ours).toBe(theirs)
        },
      ),
    )
  })
  it('leaves a row alone rather than force a bad pair', () => {
    expect(
      assign([
        [-3, -1],
        [5, 2],
      ]),
    ).toEqual([null, 0])
    expect(assign([])).toEqual([])
  })
  it('is not greedy: the best single pair gives way to the best total', () => {
    expect(
      assign([
        [10, 9],
        [9, 1],
      ]),
    ).toEqual([1, 0])
  })
})

describe('fewest moves', () => {
  it('moves one, not all that come after it', () => {
    expect(fewestMoves([3, 0, 1, 2])).toEqual([0])
    expect(fewestMoves([0, 1, 2])).toEqual([])
  })
  it('leaves an ascending rest, and no fewer moves would (by trying all subsets)', () => {
    fc.assert(
      fc.property(fc.uniqueArray(fc.integer({ min: 0, max: 20 }), { maxLength: 8 }), (ranks) => {
        const moved = new Set(fewestMoves(ranks))
        const rest = ranks.filter((_, i) => !moved.has(i))
        expect(rest).toEqual([...rest].sort((a, b) => a - b))
        let longest = 0
        for (let mask = 0; mask < 1 << ranks.length; mask++) {
          const kept = ranks.filter((_, i) => mask & (1 << i))
          if (kept.every((rank, i) => i === 0 || rank > (kept[i - 1] ?? 0)))
            longest = Math.max(longest, kept.length)
        }
        expect(rest.length).toBe(longest)
      }),
    )
  })
})

const withoutIdentity = (example: ExampleCourse): ExampleCourse => {
  for (const module of example.course.modules) {
    delete module.recordedAs
    for (const item of itemsIn(module)) delete item.recordedAs
  }
  for (const item of example.course.stray) delete item.recordedAs
  return example
}
const pairsOf = (example: ExampleCourse) => {
  const worked = expectationFor(example)
  if (!worked.ok) throw new Error('the example fits')
  const pairing = pairCourse(worked.value.expected, example.course, (item) =>
    item.html === null ? null : analysePage(item.html),
  )
  return {
    pairing,
    found: (instance: string) =>
      pairing.pairs.find((pair) => pair.expected.split('@')[0] === instance)?.found,
  }
}
/** What each found part truly is, before identity is taken away. */
const truthOf = (example: ExampleCourse) =>
  new Map(
    [
      ...example.course.modules,
      ...example.course.modules.flatMap((module) => module.children),
    ].flatMap(({ recordedAs, id }) =>
      recordedAs ? [[id, `${recordedAs.part}/${recordedAs.number}`]] : [],
    ),
  )
const rightShare = (example: ExampleCourse, truth: Map<string, string>) => {
  const worked = expectationFor(example)
  if (!worked.ok) throw new Error('the example fits')
  const { pairing } = pairsOf(example)
  const instances = new Map(
    worked.value.expected.parts
      .flatMap((module) => [module, ...module.items])
      .map((part) => [
        part.instance,
        `${part.key}/${part.repetition === null ? null : part.week?.number}`,
      ]),
  )
  const right = pairing.pairs.filter(
    (pair) => truth.has(pair.found) && truth.get(pair.found) === instances.get(pair.expected),
  ).length
  return right / truth.size
}

describe('pairing', () => {
  it('follows recorded identity whatever the name', () => {
    const example = exampleCourse()
    example.module('week', 3).name = 'Nothing like it'
    expect(
      pairsOf(example).pairing.missing.filter((instance) => instance.startsWith('week@')),
    ).toEqual([])
  })
  it('finds every part of an unedited course without identity, with and without markers', () => {
    for (const strip of [false, true]) {
      const example = exampleCourse()
      const truth = truthOf(example)
      withoutIdentity(example)
      if (strip)
        for (const module of example.course.modules)
          for (const item of itemsIn(module))
            item.html = item.html?.replace(/ data-wicker-[a-z]+="[^"]*"/g, '') ?? null
      expect(rightShare(example, truth)).toBe(1)
    }
  })
  it('finds weeks renamed in the instructor’s own style, moved and with parts deleted', () => {
    const example = exampleCourse()
    const truth = truthOf(example)
    withoutIdentity(example)
    for (const module of example.course.modules) {
      module.name = module.name.replace(/^Week (\d+) · .* · (.*)$/, 'wk $1 - $2')
      for (const item of itemsIn(module))
        if (item.html) item.html = item.html.replace(/ data-wicker-[a-z]+="[^"]*"/g, '')
    }
    const [week] = example.course.modules.splice(3, 1)
    if (week) example.course.modules.push(week)
    const gone = example.course.modules[2]?.children.pop()
    if (gone) truth.delete(gone.id)
    expect(rightShare(example, truth)).toBeGreaterThanOrEqual(0.97)
  })
  it('rescues an item dragged into another module', () => {
    const example = withoutIdentity(exampleCourse())
    const from = example.course.modules[1]
    const item = from?.children.splice(0, 1)[0]
    if (item) example.course.modules[0]?.children.push(item)
    const pair = pairsOf(example).pairing.pairs.find((pair) => pair.found === item?.id)
    expect(pair).toMatchObject({ moved: true })
  })
  it('tells a copy from its original', () => {
    const example = exampleCourse()
    const original = example.item('assignment', 2)
    example.module('week', 2).children.push({ ...original, id: 'copy', recordedAs: undefined })
    expect(pairsOf(example).pairing.copies).toEqual([
      { of: expect.stringMatching(/^assignment@/), found: 'copy' },
    ])
  })
  it('is the same every time', () => {
    expect(pairsOf(withoutIdentity(exampleCourse())).pairing).toEqual(
      pairsOf(withoutIdentity(exampleCourse())).pairing,
    )
  })
})

describe('what people said by hand', () => {
  const joined = (example: ExampleCourse, joins: Parameters<typeof pairCourse>[3]) => {
    const worked = expectationFor(example)
    if (!worked.ok) throw new Error('the example fits')
    return pairCourse(
      worked.value.expected,
      example.course,
      (item) => (item.html === null ? null : analysePage(item.html)),
      joins,
    )
  }
  const instanceOf = (example: ExampleCourse, part: string, week: number) =>
    `${part}@${example.item(part, week).recordedAs?.repetition}`
  it('a join outranks recorded identity, one for each end', () => {
    const example = exampleCourse()
    const pairing = joined(example, [
      {
        what: 'join',
        expected: instanceOf(example, 'week-overview', 2),
        found: example.item('week-overview', 3).id,
      },
    ])
    expect(
      pairing.pairs.find((pair) => pair.expected === instanceOf(example, 'week-overview', 2)),
    ).toMatchObject({ found: example.item('week-overview', 3).id, by: 'hand', moved: true })
    expect(
      pairing.pairs.filter((pair) => pair.found === example.item('week-overview', 3).id),
    ).toHaveLength(1)
  })
  it('an unjoin forbids a pair, with identity and without', () => {
    for (const example of [exampleCourse(), withoutIdentity(exampleCourse())]) {
      const expected = pairsOf(example).pairing.pairs.find((pair) =>
        pair.expected.startsWith('checklist@'),
      )
      const pairing = joined(example, [
        { what: 'unjoin', expected: expected?.expected ?? '', found: expected?.found ?? '' },
      ])
      expect(
        pairing.pairs.some(
          (pair) => pair.expected === expected?.expected && pair.found === expected.found,
        ),
      ).toBe(false)
    }
  })
  it('a join lapses when an end vanishes, and a module is never joined to an item', () => {
    const example = exampleCourse()
    const gone = {
      what: 'join',
      expected: instanceOf(example, 'checklist', 2),
      found: 'gone',
    } as const
    const mixed = {
      what: 'join',
      expected: instanceOf(example, 'checklist', 2),
      found: example.module('week', 2).id,
    } as const
    const pairing = joined(example, [gone, mixed])
    expect(pairing.lapsed).toEqual([gone])
    expect(pairing.pairs.some((pair) => pair.by === 'hand')).toBe(false)
  })
})

describe('what was rearranged', () => {
  it('two weeks in one module are told together, their items paired', () => {
    const example = withoutIdentity(exampleCourse())
    const [third, fourth] = [example.course.modules[3], example.course.modules[4]]
    if (!third || !fourth) throw new Error('weeks 3 and 4')
    third.children.push(...fourth.children)
    third.name = 'Weeks 3 and 4: compass and tides'
    example.course.modules.splice(4, 1)
    const { pairing } = pairsOf(example)
    expect(pairing.merged).toEqual([
      {
        expected: [expect.stringMatching(/^week@/), expect.stringMatching(/^week@/)],
        found: third.id,
      },
    ])
    expect(pairing.missing.filter((instance) => instance.startsWith('week@'))).toHaveLength(1)
  })
  it('a page taken apart is told with both halves, and the second is no copy', () => {
    const example = exampleCourse()
    const page = example.item('welcome')
    const pieces = (page.html ?? '').split(/(?=<div data-wicker-block)/)
    const module = example.module('casting-off')
    page.html = pieces.slice(0, 2).join('')
    module.children.splice(1, 0, {
      ...page,
      id: 'second',
      name: 'Welcome, part 2',
      html: pieces.slice(2).join(''),
      recordedAs: undefined,
    })
    for (const strip of [false, true]) {
      if (strip)
        for (const item of itemsIn(module))
          item.html = item.html?.replace(/ data-wicker-[a-z]+="[^"]*"/g, '') ?? null
      const { pairing } = pairsOf(example)
      expect(pairing.split).toEqual([{ expected: 'welcome', found: [page.id, 'second'] }])
      expect(pairing.copies).toEqual([])
    }
  })
  it('words that all siblings share tell little', () => {
    const telling = tellingAmong(['Week 3 overview', 'Week 3 reading', 'Week 3 checklist'])
    expect(nameLikeness('Week 3 checklist', 'Week 3 sea stories', telling)).toBeLessThan(0.35)
    expect(nameLikeness('Week 3 checklist', 'Week 3 checklist', telling)).toBe(1)
  })
  it('confidence rises with the evidence and with the margin, and never reaches certainty', () => {
    const some = [
      [0.2, 0.2],
      [1, 0.2],
      [1, 1],
      [5, 5],
      [50, 50],
    ].map(([score = 0, margin = 0]) => calibrated(score, margin))
    expect(some).toEqual([...some].sort((a, b) => a - b))
    expect(some.at(-1)).toBeLessThan(1)
    expect(calibrated(9, -1)).toBeLessThan(0.5)
  })
})
