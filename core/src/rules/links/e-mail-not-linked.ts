import { z } from 'zod'
import { withoutQuery } from '../../document/index.ts'
import { oncePerPage } from '../../page/index.ts'
import { defineRule } from '../rule.ts'
import { pageFaults } from '../pageFaults.ts'

const mail = /[\w.+-]{1,64}@[\w-]{1,63}(?:\.[\w-]{2,63}){1,4}/g

/** The paragraphs that may hold an address. */
const addressedIn = oncePerPage((page) =>
  page.paragraphs.filter((paragraph) => paragraph.text.includes('@')),
)

export const eMailNotLinked = defineRule({
  id: 'e-mail-not-linked',
  group: 'links',
  title: 'E-mail addresses can be pressed',
  why: 'A student on a telephone has to copy the address by hand, and gets it wrong.',
  untold: 'Addresses in pictures, and addresses that are linked elsewhere on the same page.',
  strength: 'should',
  parameters: z.strictObject({}),
  mender: 'instructor',
  effortMinutes: 1,
  messages: { plain: 'In “{item}” {seen} is no link{also}.' },
  check: (context) =>
    pageFaults(context, {
      applies: ({ page }) => addressedIn(page).length > 0,
      faults: ({ page }) => {
        const linked = new Set(
          page.links.flatMap((link) =>
            link.href.toLowerCase().startsWith('mailto:')
              ? [decodedAddress(link.href.slice(7))]
              : [],
          ),
        )
        return addressedIn(page).flatMap(({ text }) =>
          (text.match(mail) ?? []).filter((address) => !linked.has(address.toLowerCase())),
        )
      },
      message: 'plain',
      expected: 'a mailto link',
    }),
})

const decodedAddress = (text: string): string =>
  withoutQuery(text).replaceAll('%40', '@').toLowerCase()
