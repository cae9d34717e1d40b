import { z } from 'zod'
import { defineRule, type Verdict } from '../rule.ts'

export const captionsMissing = defineRule({
  id: 'captions-missing',
  group: 'access',
  title: 'Films have captions',
  why: 'Who does not hear, or sits in a noisy engine room, misses what is said.',
  wcag: ['1.2.2'],
  untold:
    'Films of other places: whether they have captions is asked, not told, unless the text beside them says so or their host is listed. Sound without pictures is not looked at.',
  strength: 'must',
  parameters: z.strictObject({
    hosts: z
      .array(z.string().max(200))
      .max(60)
      .default([])
      .describe('Hosts whose embedded films are known to have captions'),
  }),
  mender: 'instructor',
  effortMinutes: 20,
  messages: { captions: 'In “{item}” the film {seen} has no captions.' },
  *check(context, { hosts }): Generator<Verdict> {
    for (const { page, part, subject, placed } of context.pages()) {
      if (part?.audience === 'staff') continue
      const films = page.media.filter(({ kind }) => kind === 'video')
      const bare = films.find((film) => !film.captions)
      const said = (index: number) =>
        [index - 1, index].some((i) =>
          /\b(?:captions?|captioned|subtitles?|transcript)\b/i.test(page.paragraphs[i]?.text ?? ''),
        )
      const frame = page.media.find(
        ({ kind, source, paragraph }) =>
          kind === 'frame' &&
          /video|film|watch|embed|player|media/i.test(source) &&
          !hosts.some((host) => source.includes(`//${host}/`)) &&
          !said(paragraph),
      )
      if (bare)
        yield {
          subject,
          outcome: 'failed',
          message: 'captions',
          values: { item: placed.item.name, seen: bare.title ?? bare.source },
          evidence: [{ kind: 'value', text: bare.source }],
          expected: 'a captions track',
          itemId: placed.item.id,
          together: part ? part.key : 'own-pages',
        }
      else if (frame)
        yield {
          subject,
          outcome: 'cannot-tell',
          reason: `“${placed.item.name}” shows a film of another place (${frame.source.slice(0, 120)}); whether it has captions can only be seen there.`,
          itemId: placed.item.id,
        }
      else if (films.length > 0) yield { subject, outcome: 'passed' }
      else if (part) yield { subject, outcome: 'inapplicable' }
    }
  },
})
