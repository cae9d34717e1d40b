import { proofChecks, type Remark, type Template } from '@wickerframe/core'
import { Button, plural } from '../../../controls/controls.tsx'
import { firstCourseWords, type FirstCourse } from '../firstCourse.ts'

/** What proofreading found, errors first, then what the first course would be told; each leads to its place. */
export const ProofreadingView = ({
  remarks,
  firstCourse,
  template,
  nameOf,
  onOpen,
}: {
  remarks: readonly Remark[]
  firstCourse: FirstCourse
  template: Template
  nameOf: (key: string) => string
  onOpen: (key: string) => void
}) => {
  const errors = remarks.filter((remark) => remark.severity === 'error')
  const warnings = remarks.filter((remark) => remark.severity === 'warning')
  const list = (title: string, some: readonly Remark[], mark: string) =>
    some.length > 0 && (
      <section className="mt-4">
        <h2 className="text-[18px]">{title}</h2>
        <ul className="mt-1 divide-y divide-line border-y border-line">
          {some.map((remark) => (
            <li
              key={`${remark.check} ${remark.part} ${remark.block} ${remark.message}`}
              className={`border-l-4 ${mark} bg-sheet px-3 py-1.5`}
            >
              <p>{remark.message}</p>
              <p className="text-[12.5px] text-ink-2">
                {remark.part === null ? (
                  `on ${template.title}`
                ) : (
                  <>
                    on{' '}
                    <Button
                      shape="word"
                      className="py-0! text-[12.5px]"
                      onClick={() => onOpen(remark.part ?? '')}
                    >
                      {nameOf(remark.part)}
                    </Button>
                  </>
                )}
              </p>
            </li>
          ))}
        </ul>
      </section>
    )
  return (
    <div className="mt-3">
      <p>
        {errors.length > 0
          ? `${plural(errors.length, 'error')} must be mended before the template can be released.`
          : 'No errors: the template can be released.'}
        {warnings.length > 0 &&
          ` ${plural(warnings.length, 'warning')} ${warnings.length === 1 ? 'asks' : 'ask'} for a look, and ${warnings.length === 1 ? 'stops' : 'stop'} nothing.`}
      </p>
      {list('Errors', errors, 'border-l-rust')}
      {list('Warnings', warnings, 'border-l-straw-strand')}
      <section aria-label="As the first course" className="mt-4">
        <h2 className="text-[18px]">As the first course would read it</h2>
        <p role="status" className="text-ink-2">
          {firstCourseWords(firstCourse)}
        </p>
        {list('Yours to mend', firstCourse.remarks, 'border-l-straw-strand')}
      </section>
      <details className="mt-4">
        <summary className="cursor-pointer text-ink-2">What is looked at</summary>
        <ul className="list-disc pl-6 text-ink-2">
          {proofChecks.map((check) => (
            <li key={check.id}>{check.title}</li>
          ))}
        </ul>
      </details>
    </div>
  )
}
