import { useMemo } from 'react'
import {
  anchorWords,
  everyExpected,
  expandCourse,
  isModule,
  kindWords,
  type Part,
  repeatWords,
  type Template,
  variantFacts,
  variantsOf,
} from '@wickerframe/core'
import { FormatText } from '../workbench/FormatField.tsx'

/** The outline a template would have, as it grows, and what it comes to in the first course it is for. */
export const GrowingOutline = ({ template }: { template: Template }) => {
  const count = useMemo(() => {
    const [variant] = variantsOf(template)
    const expansion = variant ? expandCourse({ template, facts: variantFacts(variant) }) : null
    return expansion?.ok && variant
      ? { weeks: variant.weeks, parts: everyExpected(expansion.value.parts).length }
      : null
  }, [template])
  const row = (part: Part, depth: number): React.ReactNode => (
    <li key={part.key}>
      <p
        className={`flex items-baseline gap-3 border-b border-line py-1 ${isModule(part) ? 'bg-band font-semibold' : ''}`}
        style={{ paddingLeft: 8 + depth * 18 }}
      >
        <span className="w-20 shrink-0 text-[12px] font-normal text-ink-3">
          {kindWords(part.kind)}
        </span>
        <span className="min-w-0 grow truncate">
          <FormatText format={part.name} />
        </span>
        <span className="shrink-0 pr-2 font-normal text-ink-2">
          {[repeatWords(part.repeat), part.strength === 'must' ? '' : part.strength]
            .filter(Boolean)
            .join(' · ')}
        </span>
      </p>
      {isModule(part) && (
        <ul>
          {part.items.map((item) => row(item, depth + 1))}
          {part.exceptions.map((exception) => (
            <li key={exception.key}>
              <p
                className="border-b border-line py-1 text-ink-2"
                style={{ paddingLeft: 8 + (depth + 1) * 18 }}
              >
                in {anchorWords(exception.anchor)} {exception.leaveOut === 'all' ? 'only' : 'also'}:
              </p>
              <ul>{exception.add.map((item) => row(item, depth + 2))}</ul>
            </li>
          ))}
        </ul>
      )}
    </li>
  )
  return (
    <section aria-label="Outline as it grows" className="bg-sheet">
      <ul>{template.parts.map((part) => row(part, 0))}</ul>
      {template.parts.length === 0 && (
        <p className="p-4 text-ink-2">Nothing yet but a home page.</p>
      )}
      {count && (
        <p className="p-2 text-ink-2">
          In a course of {count.weeks} weeks: {count.parts} parts.
        </p>
      )}
    </section>
  )
}
