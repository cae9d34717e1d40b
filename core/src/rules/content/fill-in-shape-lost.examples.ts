import type { RuleExamples } from '../rule.ts'

export const examples: RuleExamples = {
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
          '<div data-wicker-block="portrait"><p>Put a picture of yourself here.</p></div><p><img src="/files/me.jpg" alt="Sunniva at the helm"></p>'
      },
      evidence: 'Put a picture of yourself here.',
    },
  ],
}
