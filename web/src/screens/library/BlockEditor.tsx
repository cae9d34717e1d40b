import { useState } from 'react'
import type { KeptBlock } from '@wickerframe/core'
import type { LibraryEntry } from '@wickerframe/contract'
import { Button, Problem } from '../../controls/controls.tsx'
import { blockTitle } from '../workbench/page/blockWords.ts'
import { RichText } from '../workbench/page/RichText.tsx'
import { usePut } from './usePut.ts'

/** Corrects a block everywhere it is shown as a kept one, where it is a text. */
export const BlockEditor = ({ entry, onSaved }: { entry: LibraryEntry; onSaved: () => void }) => {
  const kept = entry.document as KeptBlock
  const [html, setHtml] = useState('html' in kept.block ? kept.block.html : '')
  const put = usePut(onSaved)
  if (!('html' in kept.block))
    return (
      <p className="mt-2 text-ink-2">
        A {blockTitle(kept.block.kind).toLowerCase()} is corrected on the page of a template that
        holds it.
      </p>
    )
  return (
    <div className="mt-2 grid gap-2 border border-line bg-paper p-3">
      <RichText
        label={kept.title}
        html={html}
        sources={{ parts: [], assets: [] }}
        onPage
        onDone={setHtml}
      />
      <p className="text-ink-2">
        The correction reaches every draft that shows it as a kept block.
      </p>
      <Problem error={put.error} />
      <Button
        className="justify-self-start"
        disabled={put.isPending}
        onClick={() =>
          put.mutate({
            kind: 'block',
            was: entry.revision,
            document: { ...kept, block: { ...kept.block, html } as KeptBlock['block'] },
          })
        }
      >
        Save everywhere
      </Button>
    </div>
  )
}
