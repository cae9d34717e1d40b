import { useState } from 'react'
import { sizeMisfit, type Asset } from '@wickerframe/core'
import { Button, Problem } from '../../../controls/controls.tsx'
import { cutToSize } from '../../../controls/imageFile.ts'
import { Tick } from '../../../controls/typed.tsx'
import { usePut } from '../usePut.ts'
import { mayBeCut, misfitInWords, sidesInWords, type HeldSet } from './setsOf.ts'

/** In which sets an image is, and whether it is of their size; a photograph that is not may be cut to it. */
export const SetsOfImage = ({
  image,
  revision,
  sets,
  mayEdit,
}: {
  image: Asset
  revision: number
  sets: readonly HeldSet[]
  mayEdit: boolean
}) => {
  const [failed, setFailed] = useState(false)
  const put = usePut(() => setFailed(false))
  if (sets.length === 0) return null
  const cut = async ({ size }: HeldSet['set']) => {
    const content = await cutToSize(image, size)
    setFailed(content === null)
    if (content === null) return
    const { base64 } = content
    put.mutate({ kind: 'image', was: revision, document: { ...image, base64 } })
  }
  return (
    <section className="mt-4" aria-label="Sets it is in">
      {mayEdit ? (
        <div className="flex flex-wrap gap-x-4 gap-y-1">
          {sets.map(({ set, revision: was }) => (
            <Tick
              key={set.key}
              label={`one of “${set.title}”`}
              disabled={put.isPending}
              checked={set.images.includes(image.key)}
              onChange={(isIn) =>
                put.mutate({
                  kind: 'image-set',
                  was,
                  document: {
                    ...set,
                    images: isIn
                      ? [...set.images, image.key]
                      : set.images.filter((key) => key !== image.key),
                  },
                })
              }
            />
          ))}
        </div>
      ) : (
        <p className="text-ink-2">
          {sets
            .filter(({ set }) => set.images.includes(image.key))
            .map(({ set }) => `one of “${set.title}”`)
            .join(', ')}
        </p>
      )}
      {sets.flatMap(({ set }) => {
        const misfit = set.images.includes(image.key) ? sizeMisfit(image, set.size) : null
        return misfit === null
          ? []
          : [
              <p key={set.key} className="mt-1 border-l-4 border-rust bg-rust-soft px-3 py-1">
                {misfitInWords(misfit, set)}{' '}
                {mayEdit && mayBeCut(misfit, set) && (
                  <Button disabled={put.isPending} onClick={() => void cut(set)}>
                    Cut it to {sidesInWords(set.size)} around its middle
                  </Button>
                )}
              </p>,
            ]
      })}
      {failed && (
        <p role="alert" className="text-rust">
          It could not be cut here. Cut it elsewhere and put it in again.
        </p>
      )}
      <Problem error={put.error} />
    </section>
  )
}
