import { useState } from 'react'
import { rubricPoints, type Rubric } from '@wickerframe/core'
import type { LibraryEntry } from '@wickerframe/contract'
import { Button, Problem } from '../../controls/controls.tsx'
import { RubricTable } from '../workbench/views/GradingView.tsx'
import { usePut } from './usePut.ts'

/** Corrects a rubric. */
export const RubricEditor = ({ entry, onSaved }: { entry: LibraryEntry; onSaved: () => void }) => {
  const [rubric, setRubric] = useState(entry.document as Rubric)
  const put = usePut(onSaved)
  return (
    <div className="mt-2 border border-line bg-paper p-3">
      <RubricTable rubric={rubric} disabled={false} onChange={setRubric} />
      <Problem error={put.error} />
      <Button
        disabled={put.isPending}
        onClick={() => put.mutate({ kind: 'rubric', was: entry.revision, document: rubric })}
      >
        Save, {rubricPoints(rubric)} points
      </Button>
    </div>
  )
}
