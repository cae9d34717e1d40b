import * as fc from 'fast-check'
import { addDays } from '../calendar/index.ts'
import { everyCourseItem, everyModule, type Course, type Facts } from '../course/index.ts'
import { firstHouseStyle } from '../houseStyle/index.ts'
import { exampleFacts, exampleTemplate } from '../rules/example/exampleCourse.ts'
import {
  everyItem,
  everyPart,
  isModule,
  newModule,
  waysToLeave,
  type Block,
  type Item,
  type Module,
  type Template,
} from '../template/index.ts'
import { leftBlocks, readerNames } from '../testing/leftBlocks.testing.ts'
import { exampleFileParts } from '../testing/exampleFiles.testing.ts'
import { exampleQuestions } from '../testing/exampleQuestions.testing.ts'
import { fileChanges, fileEdits } from './generatedFiles.testing.ts'
import { questionChanges, questionEdits } from './generatedQuestions.testing.ts'
import type { Standing } from './standing.testing.ts'

/** The first version of the example's template, which may leave something to the instructor on a page of each kind. */
export const firstVersion = (leaves: boolean): Template => {
  const template = exampleTemplate()
  if (!leaves) return template
  for (const item of everyItem(template))
    if (item.kind === 'assessment') item.questions = { list: exampleQuestions() }
  const { files, items } = exampleFileParts()
  template.files.push(...files)
  const [first] = template.parts
  if (first && isModule(first)) first.items.push(...items)
  const pages = everyItem(template).filter(({ kind }) => kind === 'page')
  leftBlocks.forEach((block, i) =>
    (block.kind === 'contact-card' || block.kind === 'schedule'
      ? template.home
      : (pages[i % pages.length] ?? template.home)
    ).blocks.push(structuredClone(block)),
  )
  return template
}

// What a template's people do between two versions.

type TemplateChange = (template: Template, n: number) => void
const itemsOf = (template: Template): Item[] => everyItem(template)
const pick = <T>(list: readonly T[], n: number): T | undefined => list[n % Math.max(1, list.length)]
/** Says something else in what is left to the instructor piece by piece. */
const askOtherwise = (block: Block, words: string): void => {
  if (block.kind === 'objectives') for (const each of block.objectives) each.text = words
  if (block.kind === 'assignment-brief') block.whatToDo = `<p>${words}</p>`
  if (block.kind === 'discussion-prompt') block.question = `<p>${words}</p>`
  if (block.kind === 'contact-card') block.lines = [words]
}
const paragraphOf = (n: number) =>
  `<p>Said by the college to {reader, everybody} in wording ${n}, with a link to <a href="part:welcome">the welcome</a>.</p>`
export const templateChanges: Record<string, TemplateChange> = {
  ...questionChanges,
  ...fileChanges,
  'another naming format': (template, n) => {
    const item = pick(itemsOf(template), n)
    if (item) item.name = `${item.name} (${n % 7})`
  },
  'another format of the weeks': (template, n) => {
    const week = template.parts.find(
      (part): part is Module => part.key === 'week' && isModule(part),
    )
    if (week)
      week.name =
        ['Week {week}: {topic}', '{dates} · {topic}', 'Week {week, 00} · {dates} · {topic}'][
          n % 3
        ] ?? week.name
  },
  'other words in a block': (template, n) => {
    const blocks = [...template.home.blocks, ...itemsOf(template).flatMap((item) => item.blocks)]
    const block = pick(blocks, n)
    if (block?.kind === 'fixed-text' || block?.kind === 'guidance-note') block.html = paragraphOf(n)
    if (block?.kind === 'fill-in') block.prompt = `Say it in your words, please (${n % 5}).`
    if (block) askOtherwise(block, `Tell it in your words, please (${n % 5}).`)
  },
  'other words around a spot': (template, n) => {
    for (const block of itemsOf(template).flatMap((item) => item.blocks))
      if (block.key === 'left-spots' && block.kind === 'fixed-text')
        block.html = block.html.replace(/time|hours \d+/, `hours ${n % 5}`)
  },
  'other prompts everywhere': (template, n) => {
    for (const block of [
      ...template.home.blocks,
      ...itemsOf(template).flatMap((item) => item.blocks),
    ])
      if (block.kind === 'fill-in') block.prompt = `Now say it so (${n % 5}).`
      else askOtherwise(block, `Now tell it so (${n % 5}).`)
  },
  'something is left to the instructor': (template, n) => {
    const block = pick(leftBlocks, n)
    const page = pick(
      [template.home, ...itemsOf(template).filter(({ kind }) => kind === 'page')],
      n,
    )
    if (block && page && !page.blocks.some(({ key }) => key === block.key))
      page.blocks.splice(n % (page.blocks.length + 1), 0, structuredClone(block))
  },
  'something is left in another way': (template, n) => {
    const blocks = [...template.home.blocks, ...itemsOf(template).flatMap((item) => item.blocks)]
    const block = pick(
      blocks.filter(({ kind }) => waysToLeave(kind).length > 0),
      n,
    )
    if (!block) return
    const way = [null, ...waysToLeave(block.kind)][(n >> 3) % (waysToLeave(block.kind).length + 1)]
    Object.assign(block, { left: way ? { as: way } : undefined })
  },
  'a new block': (template, n) => {
    const item = pick(
      itemsOf(template).filter(({ kind }) => kind === 'page'),
      n,
    )
    const list = item ? item.blocks : template.home.blocks
    if (list.some((block) => block.key === `new-${n}`)) return
    list.splice(n % (list.length + 1), 0, {
      kind: 'fixed-text',
      key: `new-${n}`,
      strength: 'must',
      html: paragraphOf(n),
    } as Block)
  },
  'a block less': (template, n) => {
    const item = pick(
      itemsOf(template).filter(({ blocks }) => blocks.length > 0),
      n,
    )
    item?.blocks.splice(n % item.blocks.length, 1)
  },
  'another look': (template, n) => {
    template.houseStyle =
      n % 4 === 0
        ? undefined
        : {
            ...firstHouseStyle,
            headings: n % 2 === 0 ? 'bar' : 'line',
            colours: { ...firstHouseStyle.colours, tint: n % 3 === 0 ? '#eeeeee' : '#f6eee2' },
          }
  },
  'a block beside the text, or on a card': (template, n) => {
    const block = pick(
      [...template.home.blocks, ...itemsOf(template).flatMap((item) => item.blocks)],
      n,
    )
    if (block) Object.assign(block, { [n % 2 === 0 ? 'beside' : 'card']: n % 3 !== 0 || undefined })
  },
  'blocks in another order': (template) => void template.home.blocks.reverse(),
  'a new part': (template, n) => {
    const module = pick(template.parts.filter(isModule), n)
    const like = itemsOf(template)[0]
    if (module && like && !itemsOf(template).some(({ key }) => key === `part-${n}`))
      module.items.splice(n % (module.items.length + 1), 0, {
        ...structuredClone(like),
        key: `part-${n}`,
        name: `A page of version two, ${n}`,
        blocks: [
          {
            kind: 'fill-in',
            key: `fill-${n}`,
            strength: 'must',
            prompt: 'Tell us.',
            earlierPrompts: [],
            scope: 'place',
            answer: 'text',
          } as unknown as Block,
        ],
      })
  },
  'a part less': (template, n) => {
    const module = pick(template.parts.filter(isModule), n)
    if (module && module.items.length > 1) module.items.splice(n % module.items.length, 1)
  },
  'parts in another order': (template, n) => {
    const module = pick(template.parts.filter(isModule), n)
    if (module) module.items.push(...module.items.splice(0, 1))
  },
  'a part in another module': (template, n) => {
    const [from, to] =
      n % 2 === 0 ? [template.parts[1], template.parts[0]] : [template.parts[0], template.parts[1]]
    if (!from || !to || !isModule(from) || !isModule(to) || from.items.length < 2) return
    const [part] = from.items.splice(n % from.items.length, 1)
    if (part && !part.repeat) to.items.push(part)
  },
  'a module inside a module': (template, n) => {
    const outer = pick(template.parts.filter(isModule), n)
    const like = itemsOf(template).find((item) => item.kind === 'page')
    if (!outer || !like || everyPart(template).some((part) => part.key === `inner-${n}`)) return
    const page = { ...structuredClone(like), key: `inner-page-${n}`, name: `Page ${n}`, blocks: [] }
    outer.items.splice(n % (outer.items.length + 1), 0, {
      ...newModule(`inner-${n}`, `A module inside, ${n}`),
      items: [page],
    })
  },
  'something is for staff, or for students': (template, n) => {
    const item = pick(itemsOf(template), n)
    if (item) item.audience = item.audience === 'staff' ? 'students' : 'staff'
  },
  'other dates and points': (template, n) => {
    const item = pick(
      itemsOf(template).filter(({ settings }) => settings.points !== undefined),
      n,
    )
    if (item)
      item.settings = {
        ...item.settings,
        points: 10 + (n % 90),
        due: { from: 'week-end', days: -(n % 3), time: '18:00' },
      }
  },
  'other settings of the course': (template, n) => {
    template.settings = {
      ...template.settings,
      gradesShown: n % 2 === 0,
      arranged: n % 3 === 0 ? 'by-date' : 'by-topic',
    }
    template.naming.courseName = `{code} {title} · {term}${n % 2 === 0 ? '' : ' · new'}`
  },
  'another navigation': (template, n) =>
    void (template.navigation = [
      {
        key: 'home',
        label: 'Home',
        hidden: false,
        strength: 'must',
        ...pick(
          [
            {},
            { to: 'place:home' },
            { to: `part:${pick(everyPart(template), n >> 2)?.key ?? 'welcome'}` },
            { to: 'https://lighthouse.example/' },
          ],
          n,
        ),
      },
      { key: 'modules', label: `Modules ${n % 3}`, hidden: n % 2 === 0, strength: 'must' },
    ]),
}
export const factChanges: Record<string, (facts: Facts, n: number) => void> = {
  'the term begins later': (facts, n) => {
    for (const field of ['firstDay', 'lastDay'] as const)
      facts.term[field] = addDays(facts.term[field], 7 * (1 + (n % 2)))
  },
  'the platform puts names in': (facts, n) => void (facts.readerName = pick(readerNames, n) ?? ''),
  'no pause any more': (facts) => void (facts.term.breaks = []),
  'topics become known': (facts, n) =>
    void (facts.topics[String(1 + (n % 8))] = `Topic of the roster ${n}`),
}

// What instructors do. Whatever they write holds a word that is found again.

export const instructorEdits: Record<string, (at: Standing, n: number, word: string) => void> = {
  ...questionEdits,
  ...fileEdits,
  'leads the navigation elsewhere': (at, n, word) => {
    const there = pick(everyCourseItem(at.course), n)?.item
    const [first, ...others] = at.course.navigation
    at.edit([
      {
        change: 'set-navigation',
        navigation: [
          ...(n % 3 === 0 ? [] : [{ label: `My ${word}`, hidden: false }]),
          ...(first
            ? [{ ...first, ...(there ? { to: `item:${there.id}` } : { to: 'place:grades' }) }]
            : []),
          ...others,
        ],
      },
    ])
  },
  'renames an item': (at, n, word) => {
    const item = pick(everyCourseItem(at.course), n)?.item
    if (item) at.edit([{ change: 'set-item', id: item.id, fields: { name: `My ${word}` } }])
  },
  'writes a topic': (at, n, word) => {
    const module = pick(at.course.modules.slice(1), n)
    if (module)
      at.edit([
        {
          change: 'set-module',
          id: module.id,
          fields: { name: module.name.replace(/(.* · ).*$/, `$1${word}`) },
        },
      ])
  },
  'fills in': (at, n, word) => {
    const item = pick(
      everyCourseItem(at.course).filter(({ item }) =>
        /Tell|say what|When can/.test(item.html ?? ''),
      ),
      n,
    )?.item
    if (item)
      at.edit([
        {
          change: 'set-item',
          id: item.id,
          fields: {
            html: (item.html ?? '').replace(
              /(?<!\[)Tell[^<]*|In two[^<]*|When can[^<]*/,
              `It is ${word} here`,
            ),
          },
        },
      ])
  },
  'fills in a spot of a sentence': (at, n, word) => {
    const item = pick(
      everyCourseItem(at.course).filter(({ item }) => item.html?.includes('[Tell')),
      n,
    )?.item
    if (item)
      at.edit([
        {
          change: 'set-item',
          id: item.id,
          fields: {
            html: (item.html ?? '').replace(
              n % 2 === 0 ? /\[Tell[^\]<]*\]/ : /\[Tell when\]/,
              n % 3 === 0 ? `<b>${word}</b>` : `noon & ${word}`,
            ),
          },
        },
      ])
  },
  'fills in all of it': (at, n, word) => {
    for (const { item } of everyCourseItem(at.course))
      if (/Tell|say what|When can/.test(item.html ?? ''))
        at.edit([
          {
            change: 'set-item',
            id: item.id,
            fields: {
              html: (item.html ?? '').replace(
                /(?<!\[)Tell[^<]*|In two[^<]*|When can[^<]*/,
                `All is ${word} ${n}`,
              ),
            },
          },
        ])
  },
  'alters fixed text': (at, n, word) => {
    const item = pick(
      everyCourseItem(at.course).filter(({ item }) =>
        /help desk|answer to every|Tick off/.test(item.html ?? ''),
      ),
      n,
    )?.item
    if (item)
      at.edit([
        {
          change: 'set-item',
          id: item.id,
          fields: {
            html: (item.html ?? '').replace(/open every weekday|by Friday|Tick off/, word),
          },
        },
      ])
  },
  'adds a paragraph': (at, n, word) => {
    const item = pick(
      everyCourseItem(at.course).filter(({ item }) => (item.html ?? '') !== ''),
      n,
    )?.item
    if (item)
      at.edit([
        {
          change: 'set-item',
          id: item.id,
          fields: {
            html: n % 2 === 0 ? `${item.html}<p>${word}</p>` : `<p>${word}</p>${item.html}`,
          },
        },
      ])
  },
  'takes a block out': (at, n) => {
    const item = pick(
      everyCourseItem(at.course).filter(({ item }) => (item.html ?? '').includes('<div')),
      n,
    )?.item
    if (item)
      at.edit([
        {
          change: 'set-item',
          id: item.id,
          fields: { html: (item.html ?? '').replace(/<div[^>]*>(?:(?!<\/div>).)*<\/div>/s, '') },
        },
      ])
  },
  'adds an item': (at, n, word) => {
    const module = pick(at.course.modules, n)
    if (module)
      at.edit([
        {
          change: 'create-item',
          clientId: `own-${word}`,
          module: module.id,
          at: n % (module.children.length + 1),
          kind: 'page',
          fields: { name: word, html: `<p>${word}</p>` },
        },
      ])
  },
  'makes a module inside another': (at, n, word) => {
    const outer = pick(everyModule(at.course.modules), n)
    if (!outer) return
    at.edit([
      {
        change: 'create-module',
        clientId: `own-${word}`,
        parent: outer.id,
        at: n % (outer.children.length + 1),
        fields: { name: word },
      },
      {
        change: 'create-item',
        clientId: `in-${word}`,
        module: `ref:own-${word}`,
        at: null,
        kind: 'page',
        fields: { name: `In ${word}`, carried: { colour: 'teal' } },
      },
    ])
  },
  'keeps an item for staff': (at, n) => {
    const item = pick(everyCourseItem(at.course), n)?.item
    if (item) at.edit([{ change: 'set-item', id: item.id, fields: { staffOnly: !item.staffOnly } }])
  },
  'removes an item': (at, n) => {
    const item = pick(everyCourseItem(at.course), n)?.item
    if (item) at.edit([{ change: 'remove-item', id: item.id }])
  },
  'moves an item': (at, n) => {
    const item = pick(everyCourseItem(at.course), n)?.item
    const to = pick(everyModule(at.course.modules), n >> 3)
    if (item && to)
      at.edit([{ change: 'move-item', id: item.id, module: to.id, at: n % 2 === 0 ? 0 : null }])
  },
  'hides an item': (at, n) => {
    const item = pick(everyCourseItem(at.course), n)?.item
    if (item)
      at.edit([
        {
          change: 'set-item',
          id: item.id,
          fields: { published: false, dueAt: '2026-10-01T12:00:00Z' },
        },
      ])
  },
  'copies an item': (at, n, word) => {
    const item = pick(everyCourseItem(at.course), n)?.item
    if (item) at.edit([{ change: 'duplicate-item', id: item.id, clientId: `copy-${word}` }])
  },
  'gets work handed in': (at, n) => {
    at.course = structuredClone(at.course)
    const item = pick(everyCourseItem(at.course), n)?.item
    if (item) item.studentWork = true
  },
  'moves a module': (at, n) => {
    const module = pick(everyModule(at.course.modules), n)
    if (module) at.edit([{ change: 'move-module', id: module.id, at: n % 2 }])
  },
}

export type Act = { name: string; n: number }
export const acts = (of: Record<string, unknown>, most: number) =>
  fc.array(fc.record({ name: fc.constantFrom(...Object.keys(of)), n: fc.nat(997) }), {
    maxLength: most,
  })
const wordOf = (of: string, i: number) => `${of}word${i}end`
/** The second version of the example's template, and facts as they are then. */
export const changed = ({
  template,
  facts,
  leaves,
}: {
  template: readonly Act[]
  facts: readonly Act[]
  /** Whether the first version leaves something to the instructor with its structure. */
  leaves: boolean
}) => {
  const two = firstVersion(leaves)
  for (const { name, n } of template) templateChanges[name]?.(two, n)
  const later = exampleFacts()
  for (const { name, n } of facts) factChanges[name]?.(later, n)
  return { two, later }
}
/** Has an instructor do these; whatever they write holds a word that begins with `of`. */
export const edit = (at: Standing, edits: readonly Act[], of: string) =>
  edits.forEach(({ name, n }, i) => instructorEdits[name]?.(at, n, wordOf(of, i)))
/** Words written by the instructor that stand in a course, or in some of it as JSON. */
export const wordsIn = (course: Course | string, of: string): string[] => {
  const text = typeof course === 'string' ? course : JSON.stringify(course)
  return [...new Set(text.match(new RegExp(`${of}word\\d+end`, 'g')) ?? [])].sort()
}
