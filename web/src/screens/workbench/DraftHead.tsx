import { Link } from 'react-router'
import { everyPart, type Template } from '@wickerframe/core'
import type { TemplateDraft } from '@wickerframe/contract'
import { Button, Moment, plural } from '../../controls/controls.tsx'
import { useDraftStore } from './draftStore.ts'

/** What a template is for, how much it asks, and what it is built on. */
export const DraftOf = ({ draft, above }: { draft: Template; above: TemplateDraft['above'] }) => {
  const parts = everyPart(draft)
  const musts = parts.filter((part) => part.strength === 'must').length
  const { modalities, weeks } = draft.appliesTo
  return (
    <>
      <Link className="underline" to="/templates">
        Templates
      </Link>{' '}
      › {modalities.join(', ').replaceAll('-', ' ') || 'any modality'} ·{' '}
      {weeks.join(' or ') || 'any number of'} weeks · {plural(parts.length, 'part')},{' '}
      {plural(musts, 'must', 'musts')}
      {above && (
        <>
          {' '}
          · built on{' '}
          <Link className="underline" to={`/templates/${above.key}`}>
            {above.title}
          </Link>{' '}
          {above.version}
        </>
      )}
    </>
  )
}

/** When the draft was saved, or that it is being saved. */
export const Saved = () => {
  const { waiting, savedAt } = useDraftStore()
  if (waiting.length > 0) return 'saving …'
  return savedAt ? (
    <>
      saved <Moment at={savedAt} />
    </>
  ) : (
    ''
  )
}

/** Takes back what was done to the draft, and does it again. */
export const UndoRedo = () => {
  const { done, undone, undo, redo } = useDraftStore()
  return (
    <>
      <Button disabled={done.length === 0} onClick={undo}>
        Undo
      </Button>
      <Button disabled={undone.length === 0} onClick={redo}>
        Redo
      </Button>
    </>
  )
}

/** Whether it is saved, what changed since the last version, and what can be done with the draft as a whole. */
export const DraftState = ({
  latest,
  mayRelease,
  releasing,
  onRelease,
}: {
  /** Number of the last version; 0: none was released yet. */
  latest: number
  mayRelease: boolean
  releasing: boolean
  onRelease: () => void
}) => {
  const { waiting, changes } = useDraftStore()
  return (
    <>
      <span className="text-ink-2" role="status">
        draft of version {latest + 1} · <Saved /> · {plural(changes, 'change')} since{' '}
        {latest === 0 ? 'it began' : `version ${latest}`}
      </span>
      <UndoRedo />
      {mayRelease && (
        <Button shape="main" disabled={waiting.length > 0 || releasing} onClick={onRelease}>
          Release version {latest + 1} …
        </Button>
      )}
    </>
  )
}
