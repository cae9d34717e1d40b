import { ItemFile, Question, questionName, QuestionSet, TemplateFile } from '@wickerframe/core'
import { Button, plural } from '../../controls/controls.tsx'
import { useDraftStore, type OpenClash } from './draftStore.ts'

const leftWords = { proposed: ', as a proposal', theirs: ', to be filled in' }
/** A file, or which one a part hands out, by what it is called; null for anything else. */
const fileShown = (value: unknown): string | null => {
  const file = TemplateFile.safeParse(value)
  if (file.success) return `the file “${file.data.fileName}”`
  const handedOut = ItemFile.safeParse(value)
  if (!handedOut.success) return null
  const { key, left } = handedOut.data
  if (key === undefined) return 'a file of the instructor’s own'
  const held = useDraftStore.getState().draft?.files.find((one) => one.key === key)
  return `the file “${held?.fileName ?? key}”${left ? leftWords[left] : ''}`
}

/** A value as people know it: a file by what it is called, a question by what it asks, several by the first of them. */
const shown = (value: unknown): string => {
  if (value === undefined || value === null) return 'nothing'
  if (typeof value === 'string') return `“${value}”`
  const file = fileShown(value)
  if (file !== null) return file
  const question = Question.safeParse(value)
  if (question.success) return `the question ${questionName(question.data.body)}`
  const set = QuestionSet.safeParse(value)
  if (!set.success || set.data.list.length + (set.data.asked ? 1 : 0) === 0)
    return JSON.stringify(value)
  const names = set.data.list.slice(0, 3).map(({ body }) => questionName(body))
  return `${plural(set.data.list.length, 'question')}${names.length > 0 ? ` (${names.join(', ')}${set.data.list.length > 3 ? ' …' : ''})` : ''}`
}

/** Two people set the same field: both values, and whose is kept is decided here. */
export const Clashes = ({
  clashes,
  onDecide,
}: {
  clashes: readonly OpenClash[]
  onDecide: (clash: OpenClash, take: 'mine' | 'theirs') => void
}) => (
  <>
    {clashes.map((clash, i) => (
      <div key={i} role="alert" className="mt-2 border-l-4 border-rust bg-rust-soft px-3 py-1">
        <p>
          Somebody else set {clash.clash.where} meanwhile. There it says{' '}
          {shown(clash.clash.present)}; you wrote {shown(clash.clash.wanted)}.
        </p>
        <p className="flex gap-4">
          <Button shape="word" onClick={() => onDecide(clash, 'theirs')}>
            keep theirs
          </Button>
          <Button shape="word" onClick={() => onDecide(clash, 'mine')}>
            put mine
          </Button>
        </p>
      </div>
    ))}
  </>
)
