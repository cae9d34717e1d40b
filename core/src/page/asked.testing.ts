import * as fc from 'fast-check'
import type { Block } from '../template/index.ts'

/** Words of several languages and scripts, some with fields of the course, signs of HTML, quotation marks and wide spaces. */
const words = fc.constantFrom(
  'Say in two sentences why students do this in week {week}',
  'Objective, beginning with a verb you could test',
  'Écrivez ici ce que l’on fait, « en deux phrases »',
  'ここに書いてください',
  'اكتب هنا ما يفعله الطلاب',
  'What & why <soon>',
  'Topic',
  'A  line “with” quotation marks for {topic}',
  '…',
  'Say, {reader, sailor}, how you begin',
  'Опишите задание своими словами',
)
/** Prompts of a block: no two alike, as somebody writes them. */
export const prompts = (most: number): fc.Arbitrary<string[]> =>
  fc
    .array(fc.tuple(words, fc.nat(99)), { minLength: 1, maxLength: most })
    .map((list) => list.map(([said, n], i) => `${said} ${n}${'abcdefgh'[i] ?? ''}`))

const paragraph = (text: string) =>
  `<p>${text.replace(/&/g, '&amp;').replace(/</g, '&lt;').replace(/>/g, '&gt;')}</p>`

/** Blocks of every kind that can be asked for, each asking in so many pieces. */
export const askingBlocks: fc.Arbitrary<Block> = fc.oneof(
  prompts(6).map((lines): Block => ({
    kind: 'objectives',
    key: 'asks',
    strength: 'must',
    label: 'By the end you can',
    objectives: lines.map((text, i) => ({ key: `asks-${i}`, text, serves: [] })),
    left: { as: 'asked' },
  })),
  prompts(6).map((lines): Block => ({
    kind: 'checklist',
    key: 'asks',
    strength: 'must',
    label: 'Before you go on',
    lines,
    left: { as: 'asked' },
  })),
  prompts(4).map((lines): Block => ({
    kind: 'reading',
    key: 'asks',
    strength: 'must',
    label: 'Reading',
    works: lines.map((text, i) => ({
      text,
      ...(i % 2 === 0 ? { url: 'https://reading.example/a', minutes: 5 + i } : {}),
    })),
    left: { as: 'asked' },
  })),
  prompts(1).map(([title = '']): Block => ({
    kind: 'video',
    key: 'asks',
    strength: 'must',
    title,
    url: '',
    captions: true,
    left: { as: 'asked' },
  })),
  prompts(1).map(([prompt = '']): Block => ({
    kind: 'schedule',
    key: 'asks',
    strength: 'must',
    label: 'Schedule',
    prompt,
    left: { as: 'asked' },
  })),
  prompts(1).map(([title = '']): Block => ({
    kind: 'document',
    key: 'asks',
    strength: 'must',
    label: 'The plan',
    title,
    about: 'Bring it printed.',
    files: [],
    left: { as: 'asked' },
  })),
  prompts(4).map(([why = '', whatToDo = '', handIn = '', judged = '']): Block => ({
    kind: 'assignment-brief',
    key: 'asks',
    strength: 'must',
    why: why && paragraph(why),
    whatToDo: paragraph(whatToDo || 'What students do, step by step'),
    handIn: handIn && paragraph(handIn),
    judged: judged && paragraph(judged),
    left: { as: 'asked' },
  })),
  prompts(2).map((lines): Block => ({
    kind: 'discussion-prompt',
    key: 'asks',
    strength: 'must',
    question: lines.map(paragraph).join(''),
    answers: lines.length,
    firstBy: 'Wednesday',
    left: { as: 'asked' },
  })),
  prompts(4).map((lines): Block => ({
    kind: 'contact-card',
    key: 'asks',
    strength: 'must',
    label: 'Your instructor',
    lines,
    left: { as: 'asked' },
  })),
)
