import { z } from 'zod'
import { hostOf } from '../../allow/index.ts'
import { pageFaults } from '../pageFaults.ts'
import { defineRule } from '../rule.ts'

export const frameElsewhere = defineRule({
  id: 'frame-elsewhere',
  group: 'page content',
  title: 'Nothing is shown within pages from hosts that are not allowed',
  why: 'What another place shows within a page can follow students about, change overnight, and vanish.',
  untold:
    'Templates that say no hosts: what is allowed is then not known here. Frames of the platform’s own.',
  strength: 'should',
  parameters: z.strictObject({}),
  mender: 'instructor',
  effortMinutes: 5,
  messages: {
    frame: '“{item}” shows {seen} within the page{also}, from a host that is not allowed.',
  },
  check: (context) => {
    const hosts = context.expected.template.frameHosts
    const foreign = (source: string): boolean => {
      const host = hostOf(source.replace(/^\/\//, 'https://'))
      return host === null ? /^http:/i.test(source) : hosts?.includes(host) === false
    }
    return pageFaults(context, {
      applies: ({ page }) => hosts !== undefined && page.media.some(({ kind }) => kind === 'frame'),
      faults: ({ page }) =>
        page.media.flatMap(({ kind, source }) =>
          kind === 'frame' && foreign(source) ? [source] : [],
        ),
      message: 'frame',
      evidence: 'value',
      expected:
        hosts === undefined || hosts.length === 0
          ? 'a link in its place'
          : `a link in its place, or something of ${hosts.join(', ')}`,
    })
  },
})
