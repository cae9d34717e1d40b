import { parseFragment } from 'parse5'
import { describe, expect, it } from 'vitest'
import { analysePage } from '../page/index.ts'
import { exampleFacts, exampleTemplate } from '../rules/example/exampleCourse.ts'
import { gradedTemplate } from '../rules/example/gradedTemplate.ts'
import { newBlock, offeredBlocks, type Block } from '../template/index.ts'
import { htmlOf, pageWith } from './blocks.testing.ts'
import { expandCourse } from './index.ts'

describe('blocks made from the course', () => {
  it('a work list names what its module holds, with links', () => {
    expect(
      analysePage(htmlOf({ kind: 'work-list', key: 'w', label: 'To do' })).links.map(
        (link) => link.text,
      ),
    ).toEqual([
      'NAV 110 · Discussion 2: Leading marks',
      'NAV 110 · Assignment 1: Leading marks',
      'Week 2 checklist',
    ])
  })
  it('key dates are what is due in its module, earliest first, in the term’s zone', () => {
    expect(
      analysePage(htmlOf({ kind: 'key-dates', key: 'k' })).paragraphs.map(
        (paragraph) => paragraph.text,
      ),
    ).toEqual([
      'Key dates',
      'Thu 10 Sep, 23:59: NAV 110 · Discussion 2: Leading marks',
      'Sun 13 Sep, 23:59: NAV 110 · Assignment 1: Leading marks',
      'Sun 13 Sep, 23:59: NAV 110 · Quiz 2: Leading marks',
    ])
  })
  it('key dates of the term are its first and last day, breaks and holidays', () => {
    expect(
      analysePage(htmlOf({ kind: 'key-dates', key: 'k', of: 'term' }))
        .paragraphs.map((paragraph) => paragraph.text)
        .slice(1),
    ).toEqual([
      'Mon 31 Aug: First day of class',
      'Mon 7 Sep: Labour Day',
      'Mon 28 Sep to Fri 2 Oct: Fall Pause',
      'Fri 23 Oct: Last day of class',
    ])
  })
  it('a schedule has a row for every week, with dates, topic and what is due; nothing is due in the pause', () => {
    const rows = analysePage(htmlOf({ kind: 'schedule', key: 's' })).paragraphs.map(
      (paragraph) => paragraph.text,
    )
    expect(rows.filter((text) => text.startsWith('Week '))).toHaveLength(8)
    expect(rows.join(' ')).toContain(
      '7 Sep – 13 Sep Leading marks Thu 10 Sep, 23:59: NAV 110 · Discussion 2: Leading marks',
    )
    expect(rows.join(' ')).not.toContain('Thu 1 Oct')
  })
  it('a schedule says who teaches, where modules are assigned to people, and has no column for it where none is', () => {
    const template = exampleTemplate()
    template.home.blocks.push({ kind: 'schedule', key: 's', strength: 'must', label: 'Schedule' })
    const facts = exampleFacts()
    facts.instructors = [
      { name: 'Una Drift', email: 'una.drift@kestrelsound.example' },
      { name: 'Bo Keel', email: 'bo.keel@kestrelsound.example' },
    ]
    const tableFor = (moduleOwners: Record<string, string>): string => {
      const expected = expandCourse({ template, facts: { ...facts, moduleOwners }, mintFrom: 't' })
      if (!expected.ok) throw new Error('it fits')
      return expected.value.home.blocks.find(({ key }) => key === 's')?.html ?? ''
    }
    const expected = expandCourse({ template, facts, mintFrom: 't' })
    const second = expected.ok
      ? expected.value.parts.find(({ week }) => week?.number === 2)?.instance
      : undefined
    expect(tableFor({})).not.toContain('Taught by')
    expect(tableFor({ 'm-404': 'bo.keel@kestrelsound.example' })).toContain('Taught by')
    const taught = tableFor({ [second ?? '']: 'bo.keel@kestrelsound.example' })
    expect(taught.match(/<td>Bo Keel<\/td>/g)).toHaveLength(1)
    expect(taught.match(/<td>Una Drift, Bo Keel<\/td>/g)).toHaveLength(6)
    expect(taught.match(/<th scope="col">/g)).toHaveLength(5)
    // Somebody who is not of the course is not named.
    expect(tableFor({ [second ?? '']: 'nobody@kestrelsound.example' })).not.toContain('Taught by')
  })
  it('a passage that folds says its first line and holds the rest', () => {
    expect(
      htmlOf({ kind: 'fold', key: 'f', summary: 'More on {topic}', html: '<p>Week {week}.</p>' }),
    ).toBe('<details><summary>More on Leading marks</summary><p>Week 2.</p></details>')
  })
  it('a map of outcomes has a row for each, with the modules that work towards it; repetitions are told by their first and last', () => {
    const template = gradedTemplate()
    const page = template.home
    page.blocks.push({
      kind: 'outcome-map',
      key: 'map',
      strength: 'must',
      label: 'Where it is learned',
    })
    template.outcomes.push({ key: 'nothing', text: 'Sail <alone> in {term}' })
    const expected = expandCourse({ template, facts: exampleFacts() })
    if (!expected.ok) throw new Error('it fits')
    const html = expected.value.home.blocks.find(({ key }) => key === 'map')?.html ?? ''
    expect(analysePage(html).paragraphs.map(({ text }) => text)).toEqual([
      'Where it is learned',
      'Outcome',
      'Modules',
      'Fix a position by three means',
      expect.stringMatching(/^Week 1 · .* to Week 8 · /) as unknown,
      'Plan a passage',
      expect.stringMatching(/^Week 1 · .* to Week 8 · /) as unknown,
      'Sail <alone> in Autumn 2026',
    ])
    expect(analysePage(html).links.map(({ href }) => href)).toHaveLength(4)
  })
  it('a contact card has the instructors with their addresses', () => {
    expect(htmlOf({ kind: 'contact-card', key: 'c' })).toContain(
      'Sunniva Drake, <a href="mailto:sunniva.drake@kestrelsound.example">',
    )
  })
})

describe('blocks written by the template', () => {
  it('have fields filled and words escaped', () => {
    expect(
      htmlOf({ kind: 'checklist', key: 'c', lines: ['I read <week> {week} on {topic}'] }),
    ).toContain('<li>I read &lt;week&gt; 2 on Leading marks</li>')
    expect(
      htmlOf({
        kind: 'table',
        key: 't',
        caption: 'Tides',
        header: ['Port', 'High'],
        rows: [['A & B', '{start, d MMM}']],
      }),
    ).toBe(
      '<table><caption>Tides</caption><thead><tr><th scope="col">Port</th><th scope="col">High</th></tr></thead><tbody><tr><td>A &amp; B</td><td>7 Sep</td></tr></tbody></table>',
    )
    expect(
      htmlOf({
        kind: 'video',
        key: 'v',
        title: 'Knots',
        url: 'https://video.kestrelsound.example/1',
        minutes: 6,
        captions: true,
        transcript: 'https://video.kestrelsound.example/1.txt',
      }),
    ).toContain(
      '(6 minutes, with captions)</p><p><a href="https://video.kestrelsound.example/1.txt">Transcript</a>',
    )
    expect(
      htmlOf({
        kind: 'discussion-prompt',
        key: 'd',
        question: '<p>Why?</p>',
        answers: 2,
        firstBy: '{start, EEEE}',
        answersBy: 'Sunday',
      }),
    ).toBe('<p>Why?</p><p>Write first by Monday. Answer 2 classmates by Sunday.</p>')
    expect(htmlOf({ kind: 'assignment-brief', key: 'a', whatToDo: '<p>Plot it.</p>' })).toBe(
      '<h3>What to do</h3><p>Plot it.</p>',
    )
  })
  it('link to parts that follow: this week’s copy, under the name it has here', () => {
    const link = (text: string) => ({ kind: 'fixed-text', key: 'f', html: `<p>${text}</p>` })
    expect(htmlOf(link('<a href="part:quiz" data-follows="name">the old name</a>'), {}, 3)).toMatch(
      /^<p><a href="ref:quiz@r-[0-9a-f]+">NAV 110 · Quiz 3: Compass<\/a><\/p>$/,
    )
    expect(htmlOf(link('<a href="part:quiz">the quiz</a>'))).toMatch(/>the quiz<\/a>/)
    expect(htmlOf(link('<a href="part:welcome">begin</a>'))).toBe(
      '<p><a href="ref:welcome">begin</a></p>',
    )
  })
  it('to a part that is not in this course become plain words', () => {
    const template = exampleTemplate()
    const parts = JSON.parse(
      JSON.stringify(template.parts).replace(
        '"key":"quiz"',
        '"when":{"modalities":["online"]},"key":"quiz"',
      ),
    ) as object[]
    expect(
      htmlOf(
        { kind: 'fixed-text', key: 'f', html: '<p>See <a href="part:quiz">the quiz</a>.</p>' },
        { parts },
      ),
    ).toBe('<p>See the quiz.</p>')
  })
  it('answered by a layer are not asked again', () => {
    expect(
      htmlOf({
        kind: 'fill-in',
        key: 'q',
        label: 'Aims',
        prompt: 'List them.',
        answer: '<ul><li>Steer in week {week}</li></ul>',
      }),
    ).toBe('<h3>Aims</h3><ul><li>Steer in week 2</li></ul>')
  })
  it('linked house texts lead to where the words are kept, copied ones say them', () => {
    const block = (mode: string) =>
      htmlOf({ kind: 'house-text', key: 'h', houseText: 'muster', mode })
    expect([block('linked'), block('copied')]).toEqual([
      '<p><a href="house-text:muster">Emergency Muster</a></p>',
      '<p>In an emergency leave by the stair. Call 5500.</p>',
    ])
  })
  it('kept in one place stand in several, and are corrected there', () => {
    const kept = (html: string) => ({
      keptBlocks: [
        { key: 'care', title: 'Take care', block: { kind: 'take-care', key: 'care', html } },
      ],
    })
    const place = { kind: 'kept-block', key: 'here', kept: 'care', strength: 'should' }
    expect(
      pageWith([place, { ...place, key: 'there' }], kept('<p>Mind the step.</p>')).blocks.map(
        (block) => [block.key, block.kind, block.strength, block.html],
      ),
    ).toEqual([
      ['here', 'take-care', 'should', '<p><strong>Take care.</strong></p><p>Mind the step.</p>'],
      ['there', 'take-care', 'should', '<p><strong>Take care.</strong></p><p>Mind the step.</p>'],
    ])
  })
})

describe('every kind of block', () => {
  const template = exampleTemplate()
  template.assets = [
    {
      key: 'knot',
      fileName: 'knot.svg',
      svg: '<svg xmlns="http://www.w3.org/2000/svg"/>',
      alternativeText: 'A knot',
      licence: 'ours',
    },
  ]
  template.keptBlocks = [
    {
      key: 'kept',
      title: 'Kept',
      block: { kind: 'in-short', key: 'k', strength: 'must', html: '<p>x</p>' },
    },
  ]
  it.each(offeredBlocks.map(({ kind }) => kind))(
    '%s can be put in as it is made, and gives HTML that parses back to itself',
    (kind) => {
      const block = newBlock(kind, 'made', template) as Block
      const { html } = pageWith([block], {
        assets: template.assets,
        keptBlocks: template.keptBlocks,
      }).blocks[0] ?? { html: '' }
      expect(parseFragment(html).childNodes.length).toBeGreaterThan(0)
      expect(html).not.toMatch(/undefined|\[object/)
    },
  )
})
