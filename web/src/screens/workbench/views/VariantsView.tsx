import { useMemo, useState } from 'react'
import { everyVariant, sideBySide, variantWords, type Template } from '@wickerframe/core'
import { Tick } from '../../../controls/typed.tsx'

/** What becomes of every part in the kinds of course the template is for, side by side. */
export const VariantsView = ({
  template,
  onOpen,
}: {
  template: Template
  onOpen: (key: string) => void
}) => {
  const [onlyDiffering, setOnlyDiffering] = useState(false)
  const variants = useMemo(() => everyVariant(template), [template])
  const among = variants.map((variant) => variant.variant)
  const shown = variants.slice(0, 6)
  const rows = useMemo(
    () =>
      sideBySide(
        template,
        shown.map(({ expected }) => expected),
      ),
    [template, shown],
  )
  const visible = onlyDiffering ? rows.filter((row) => row.differs) : rows
  return (
    <div className="mt-2">
      <div className="flex flex-wrap items-baseline justify-between gap-3">
        <p className="text-ink-2">
          {variants.length === 1
            ? 'The template is for one kind of course. Say under Course what it applies to, or give a part a condition, and the kinds stand here side by side.'
            : `${variants.length} kinds of course${variants.length > 6 ? ', the first six shown' : ''}, each with a pause in the middle.`}
        </p>
        <Tick label="only what differs" checked={onlyDiffering} onChange={setOnlyDiffering} />
      </div>
      <div className="mt-2 max-h-[calc(100vh-19rem)] min-h-80 overflow-auto">
        <table className="w-full border-collapse text-left">
          <thead className="sticky top-0 bg-linen">
            <tr className="border-b border-line-strong text-[12.5px]">
              <th scope="col" className="py-1 pl-2">
                Part
              </th>
              {shown.map(({ variant }) => (
                <th key={variantWords(variant, among)} scope="col" className="px-2">
                  {variantWords(variant, among)}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {visible.map((row) => (
              <tr
                key={row.key}
                className={`border-b border-line ${row.kind === 'module' ? 'bg-band' : ''}`}
              >
                <th
                  scope="row"
                  className="py-1 font-normal"
                  style={{ paddingLeft: 8 + row.depth * 16 }}
                >
                  <button type="button" className="text-left" onClick={() => onOpen(row.key)}>
                    {row.format}
                  </button>
                </th>
                {row.cells.map((cell, i) => (
                  <td key={i} className="px-2 text-ink-2">
                    {cell === null ? (
                      <span className="text-ink-3">not there</span>
                    ) : (
                      <>
                        {cell.count > 1 ? `${cell.count} times, first “${cell.name}”` : cell.name}
                      </>
                    )}
                  </td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
        {visible.length === 0 && (
          <p className="py-4 text-ink-2">Every part is in every kind of course, equally often.</p>
        )}
      </div>
    </div>
  )
}
