import { z } from 'zod'
import { frameOf } from '../../../allow/index.ts'
import { Address } from '../../../document/index.ts'
import { anchor, escapeHtml, heading, minuteWords } from '../html.ts'
import { defineBlock } from '../kind.ts'
import { leavable } from '../left.ts'
import { fresh, line, shared } from '../shared.ts'
import { asWritten } from '../writing.ts'

export const video = defineBlock(
  'video',
  z.strictObject({
    ...shared,
    ...leavable,
    kind: z.literal('video'),
    title: line,
    url: Address,
    minutes: z.number().min(0).max(600).optional(),
    captions: z.boolean().default(false),
    transcript: Address.optional().describe('Address of the transcript'),
  }),
  {
    title: 'Video',
    group: 'written',
    isFixed: true,
    answer: 'video',
    htmlFields: [],
    wordFields: [],
    empty: (key) => ({
      ...fresh('video', key),
      title: 'Title of the video',
      url: '',
      captions: false,
    }),
    html: (block, writing) => {
      const name = writing.line(block.title)
      // As long as it is asked for, it has no name of its own.
      if (block.left?.as === 'asked')
        return asWritten(`${heading('Video')}<p>${name}</p>`, [`<p>${name}</p>`])
      const told = [
        ...minuteWords(block.minutes),
        block.captions ? 'with captions' : 'without captions',
      ]
      return asWritten(
        `<h3>${name}</h3>${frameOf(escapeHtml(block.url), name, 'wide')}<p><a href="${escapeHtml(block.url)}">${name}</a> (${told.join(', ')})</p>${block.transcript ? `<p>${anchor(block.transcript, 'Transcript')}</p>` : ''}`,
      )
    },
    words: () => null,
  },
)
