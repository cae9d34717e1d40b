import { z } from 'zod'
import { defineRule } from '../rule.ts'
import { pageFaults } from '../pageFaults.ts'

export const linkToOtherPlatform = defineRule({
  id: 'link-to-other-platform',
  group: 'links',
  title: 'Outside links stay on the allowed list',
  why: 'Places nobody has looked at may ask students for money or data, or be gone tomorrow.',
  untold: 'Anything while no host is listed.',
  strength: 'should',
  parameters: z.strictObject({
    allowed: z
      .array(z.string().min(1).max(200))
      .max(500)
      .default([])
      .describe(
        'Hosts that may be linked, with all below them; with none listed the rule does not apply',
      ),
  }),
  mender: 'instructor',
  effortMinutes: 3,
  messages: { outside: '“{item}” links to {seen}, which is not on the allowed list{also}.' },
  check: (context, { allowed }) =>
    pageFaults(context, {
      applies: ({ page }) => allowed.length > 0 && page.links.length + page.media.length > 0,
      faults: ({ page }) =>
        [...page.links.map((link) => link.href), ...page.media.map(({ source }) => source)].flatMap(
          (href) => {
            const target = context.leadsTo(href)
            return target.leads === 'outside' &&
              !allowed.some((host) => target.host === host || target.host.endsWith(`.${host}`))
              ? [target.host]
              : []
          },
        ),
      message: 'outside',
      expected: 'a place on the allowed list',
      evidence: 'value',
    }),
})
