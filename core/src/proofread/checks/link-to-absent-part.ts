import { homePageKey, targetIn } from '../../template/index.ts'
import { variantWords } from '../../variant/index.ts'
import { defineCheck, htmlOf, Proof, type Found } from '../remark.ts'

const targets = (html: string): string[] =>
  [...html.matchAll(/href="part:([a-z0-9-]+)"/g)].map((match) => match[1] ?? '')

export const linkToAbsentPart = defineCheck({
  id: 'link-to-absent-part',
  severity: 'error',
  title: 'Links lead to parts that are there',
  messages: {
    nowhere: 'A link leads to {to}, which is no part of this template.',
    removed: 'A link leads to “{to}”, which is not there in courses that are {variant}.',
    'entry-nowhere':
      'The navigation entry “{label}” leads to a part that is no part of this template.',
    'entry-removed':
      'The navigation entry “{label}” leads to “{to}”, which is not there in courses that are {variant}.',
    'entry-staff': 'The navigation entry “{label}” leads to “{to}”, which students cannot see.',
    staff: 'A link leads to “{to}”, which students cannot see.',
  },
  *find(proof): Generator<Found> {
    const keys = new Map(proof.parts.map((part) => [part.key, part]))
    const courses = proof.variants.map((variant) => ({
      words: variantWords(
        variant.variant,
        proof.variants.map((other) => other.variant),
      ),
      parts: Proof.byKey(variant),
    }))
    for (const { key, label, hidden, to } of proof.template.navigation) {
      const leads = targetIn('part', to)
      if (leads === null) continue
      const part = keys.get(leads)
      const missing = courses.find((course) => !course.parts.has(leads))
      const told = { part: null, block: key }
      if (!part && leads !== homePageKey)
        yield { ...told, message: 'entry-nowhere', values: { label } }
      else if (missing)
        yield {
          ...told,
          message: 'entry-removed',
          values: { label, to: proof.nameOf(leads), variant: missing.words },
        }
      else if (part?.audience === 'staff' && !hidden)
        yield {
          ...told,
          message: 'entry-staff',
          values: { label, to: part.name },
          severity: 'warning',
        }
    }
    for (const page of proof.pages) {
      for (const block of page.blocks) {
        const linked = new Set([
          ...htmlOf(block).flatMap(targets),
          ...(block.kind === 'signposts' ? block.links.map((link) => link.to) : []),
        ])
        for (const to of linked) {
          const part = keys.get(to)
          if (to !== homePageKey && !part) {
            yield { part: page.key, block: block.key, message: 'nowhere', values: { to } }
            continue
          }
          const missing = courses.find(
            (course) => course.parts.has(page.key) && !course.parts.has(to),
          )
          if (missing)
            yield {
              part: page.key,
              block: block.key,
              message: 'removed',
              values: { to: proof.nameOf(to), variant: missing.words },
            }
          else if (
            part?.audience === 'staff' &&
            block.kind !== 'guidance-note' &&
            (page.item?.audience ?? 'students') === 'students'
          )
            yield {
              part: page.key,
              block: block.key,
              message: 'staff',
              values: { to: part.name },
              severity: 'warning',
            }
        }
      }
    }
  },
})
