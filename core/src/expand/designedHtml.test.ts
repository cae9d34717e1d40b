import { describe, expect, it } from 'vitest'
import { exampleTemplate } from '../rules/example/exampleCourse.ts'
import { letIn } from '../allow/index.ts'
import { newBlock, offeredBlocks, type KeptBlockBody, type Template } from '../template/index.ts'
import { designedHtml } from './designedHtml.ts'

const template = (): Template => ({
  ...exampleTemplate(),
  assets: [
    {
      key: 'quay',
      fileName: 'quay.svg',
      svg: '<svg xmlns="http://www.w3.org/2000/svg"/>',
      alternativeText: 'The quay',
      licence: 'own work',
    },
  ],
})
const shown = (block: object): string | null =>
  designedHtml({ key: 'x', strength: 'must', ...block } as KeptBlockBody, template())

describe('a block as it is designed', () => {
  it.each<[what: string, block: object, html: string]>([
    [
      'shows fields as they are written',
      { kind: 'fixed-text', html: '<p>By {end} of week {week}</p>' },
      '<p>By {end} of week {week}</p>',
    ],
    [
      'shows the format of a title',
      { kind: 'title', text: '{code} <b>' },
      '<h2>{code} &lt;b&gt;</h2>',
    ],
    [
      'names a part by its format where a link follows its name',
      {
        kind: 'fixed-text',
        html: '<p><a href="part:week" data-follows="name">old</a> <a href="part:week">this</a> <a href="part:gone">that</a></p>',
      },
      '<p><a href="part:week">Week {week} · {dates} · {topic}</a> <a href="part:week">this</a> that</p>',
    ],
    [
      'shows an image of the template',
      { kind: 'banner', image: 'quay' },
      '<p><img src="asset:quay.svg" alt="The quay"></p>',
    ],
    [
      'says in whose words a note is',
      { kind: 'guidance-note', html: '<p>Keep it short.</p>' },
      '<p><strong>Note to the instructor.</strong></p><p>Keep it short.</p>',
    ],
    [
      'lets nothing in that runs',
      { kind: 'fixed-text', html: '<p onclick="x()">a<script>x()</script></p>' },
      '<p>a</p>',
    ],
  ])('%s', (_, block, html) => {
    expect(shown(block)).toBe(html)
  })
  it('of any kind is let in as it is, or left to a course where only a course can say', () => {
    for (const { kind, group } of offeredBlocks) {
      const block = newBlock(kind, 'x', template())
      if (!block || block.kind === 'kept-block') continue
      const html = designedHtml(block, template())
      expect([kind, html === null]).toEqual([kind, group === 'made'])
      if (html !== null) expect(letIn(html)).toEqual({ html, refused: [] })
    }
  })
})
