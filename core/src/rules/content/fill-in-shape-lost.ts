import { z } from 'zod'
import { defineRule, type Verdict } from '../rule.ts'

export const fillInShapeLost = defineRule({
  id: 'fill-in-shape-lost',
  group: 'page content',
  title: 'Answers stand in their frame, under their label',
  why: 'An image put beside its frame leaves the empty frame with its prompt; an answer without its label says nobody knows what.',
  strength: 'should',
  parameters: z.strictObject({}),
  mender: 'instructor',
  effortMinutes: 2,
  messages: {
    label: '“{item}” has an answer, but its label “{label}” is gone.',
    outside: '“{item}” has an image beside the frame that still asks: “{prompt}”.',
  },
  *check(context): Generator<Verdict> {
    for (const { part, block, told, stands } of context.blocks()) {
      const { definition } = block
      if (
        definition.kind !== 'fill-in' ||
        (definition.label === undefined && definition.type !== 'image')
      )
        continue
      if (!stands) yield { ...told, outcome: 'absent' }
      else if (stands.reading.shapeLost === null)
        yield { ...told, outcome: stands.reading.state === 'filled' ? 'passed' : 'inapplicable' }
      else if (!context.reached(context.needOf(part)))
        yield { ...told, outcome: 'not-due-yet', dueOn: context.needOf(part) }
      else
        yield {
          ...told,
          outcome: 'failed',
          message: stands.reading.shapeLost,
          values: {
            item: stands.there.item.name,
            label: definition.label ?? '',
            prompt: definition.prompt,
          },
          evidence: [
            {
              kind: 'words',
              text: stands.reading.text.slice(0, 300) || 'an image beside the frame',
            },
          ],
          expected: definition.label ?? 'the image in its frame',
          itemId: stands.there.item.id,
          together: `${part.key}/${block.key}`,
        }
    }
  },
  examples: {
    passes: [
      { title: 'answers under their labels', change: () => {} },
      {
        title: 'not filled in yet',
        change: ({ item }) =>
          void (item('home-page').html = (item('home-page').html ?? '').replace(
            'Tuesdays 10 to 11, room 4',
            'When can students see you?',
          )),
      },
    ],
    fails: [
      {
        title: 'the label was deleted with the prompt',
        change: ({ item }) =>
          void (item('home-page').html = (item('home-page').html ?? '').replace(
            '<h3>Office hours</h3>',
            '',
          )),
        evidence: 'Tuesdays 10 to 11, room 4',
      },
      {
        title: 'the image stands beside its frame',
        change: ({ template, item }) => {
          for (const part of template.parts)
            if (part.kind === 'module')
              for (const inner of part.items)
                if (inner.kind !== 'module' && inner.key === 'welcome')
                  inner.blocks.push({
                    kind: 'fill-in',
                    key: 'portrait',
                    strength: 'must',
                    type: 'image',
                    prompt: 'Put a picture of yourself here.',
                    scope: 'place',
                    earlierPrompts: [],
                  })
          item('welcome').html +=
            '<div data-wf-block="portrait"><p>Put a picture of yourself here.</p></div><p><img src="/files/me.jpg" alt="Sunniva at the helm"></p>'
        },
        evidence: 'Put a picture of yourself here.',
      },
    ],
  },
})
