import { useState } from 'react'
import type { Asset } from '@wickerframe/core'
import { Button, Choice, plural } from '../../../controls/controls.tsx'
import { SetForm } from './SetForm.tsx'
import { inNoSet, misfitsIn, sidesInWords, type HeldSet } from './setsOf.ts'

/** The sets of the images: which is shown, how large its images are, and how many are not. */
export const ImageSets = ({
  sets,
  images,
  chosen,
  mayEdit,
  onChoose,
}: {
  sets: readonly HeldSet[]
  images: readonly Asset[]
  /** Key of the set that is shown; null: all images. */
  chosen: string | null
  mayEdit: boolean
  onChoose: (key: string | null) => void
}) => {
  const [form, setForm] = useState<'new' | 'change' | null>(null)
  const shown = sets.find(({ set }) => set.key === chosen) ?? null
  const inNone = images.filter(
    ({ key }) => !sets.some(({ set }) => set.images.includes(key)),
  ).length
  const misfits = shown ? misfitsIn(shown.set, images).length : 0
  const choice = (key: string | null, words: string, count: number) => (
    <Choice
      key={key}
      pressed={chosen === key}
      onClick={() => {
        setForm(null)
        onChoose(key)
      }}
    >
      {words} ({count})
    </Choice>
  )
  return (
    <section className="mt-3" aria-label="Sets">
      <div className="flex flex-wrap items-center gap-2 text-[14px]" role="group" aria-label="Sets">
        <span className="text-ink-2">Sets:</span>
        {choice(null, 'all', images.length)}
        {sets.map(({ set }) => choice(set.key, set.title, set.images.length))}
        {sets.length > 0 && inNone > 0 && choice(inNoSet, 'in no set', inNone)}
        {mayEdit && (
          <Button
            shape="word"
            aria-expanded={form === 'new'}
            onClick={() => setForm((before) => (before === 'new' ? null : 'new'))}
          >
            new set
          </Button>
        )}
      </div>
      {shown && (
        <p className="mt-1 text-[14px]">
          {shown.set.title} are {sidesInWords(shown.set.size)} pixels
          {misfits > 0 ? (
            <strong className="font-semibold text-rust">
              ; {plural(misfits, 'is', 'are')} of another size
            </strong>
          ) : shown.set.images.length > 0 ? (
            '; all of them fit'
          ) : (
            '; none is in it yet'
          )}
          .{' '}
          {mayEdit && (
            <Button
              shape="word"
              aria-expanded={form === 'change'}
              onClick={() => setForm((before) => (before === 'change' ? null : 'change'))}
            >
              change the set
            </Button>
          )}
        </p>
      )}
      {form !== null && (form === 'new' || shown) && (
        <SetForm
          key={form === 'new' ? 'new' : shown?.set.key}
          of={form === 'new' ? null : shown}
          taken={new Set(sets.map(({ set }) => set.key))}
          onSaved={(key) => {
            setForm(null)
            onChoose(key)
          }}
          onClose={() => setForm(null)}
        />
      )}
    </section>
  )
}
