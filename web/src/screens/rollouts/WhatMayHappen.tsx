import { everyPart, homePageKey, kindWords, type Template } from '@wickerframe/core'
import { plural } from '../../controls/controls.tsx'
import { Tick } from '../../controls/typed.tsx'

/** What a rollout may do to a course, beyond what is new in the version. */
export interface Leave {
  restoreFixed: boolean
  restoreParts: boolean
  /** Goes on without approval where a course changed before its turn and the plan only adds. */
  standing: boolean
  /** Keys of parts; none: all. */
  only: ReadonlySet<string>
}
export const usualLeave: Leave = {
  restoreFixed: false,
  restoreParts: false,
  standing: false,
  only: new Set(),
}

const leaveWords = ({ only, restoreFixed, restoreParts, standing }: Leave): string =>
  [
    only.size > 0 ? `only ${plural(only.size, 'part')}` : 'the whole version',
    ...(restoreFixed ? ['altered fixed text is restored'] : []),
    ...(restoreParts ? ['removed parts come back'] : []),
    ...(standing ? ['with standing approval'] : []),
  ].join(', ')

const partsOf = (template: Template | undefined) =>
  template
    ? [
        { key: homePageKey, label: `${template.home.name} (home page)` },
        ...everyPart(template).map(({ key, kind, name }) => ({
          key,
          label: `${name} (${kindWords(kind)})`,
        })),
      ]
    : []

export const WhatMayHappen = ({
  leave,
  template,
  onChange,
}: {
  leave: Leave
  template: Template | undefined
  onChange: (leave: Leave) => void
}) => {
  const parts = partsOf(template)
  const tick = (key: string, on: boolean) => {
    const only = new Set(leave.only)
    if (on) only.add(key)
    else only.delete(key)
    onChange({ ...leave, only })
  }
  return (
    <details className="mt-3 border border-line bg-sheet">
      <summary className="cursor-pointer px-3 py-1.5 font-semibold">
        What may happen: {leaveWords(leave)}
      </summary>
      <div className="flex flex-wrap gap-x-8 gap-y-1 border-t border-line px-3 py-2">
        <Tick
          label="restore fixed text that instructors altered or took out"
          checked={leave.restoreFixed}
          onChange={(restoreFixed) => onChange({ ...leave, restoreFixed })}
        />
        <Tick
          label="bring back parts that were removed, but for those that may go"
          checked={leave.restoreParts}
          onChange={(restoreParts) => onChange({ ...leave, restoreParts })}
        />
        <Tick
          label="standing approval: if a course changes before its turn, go on as long as its plan only adds"
          checked={leave.standing}
          onChange={(standing) => onChange({ ...leave, standing })}
        />
      </div>
      {parts.length > 0 && (
        <div className="border-t border-line px-3 py-2">
          <p className="text-ink-2">Only these parts and what is in them; none ticked means all:</p>
          <ul
            className="mt-1 grid max-h-48 grid-cols-2 overflow-y-auto lg:grid-cols-3"
            tabIndex={0}
            aria-label="Parts to bring"
          >
            {parts.map(({ key, label }) => (
              <li key={key}>
                <Tick
                  label={label}
                  checked={leave.only.has(key)}
                  onChange={(on) => tick(key, on)}
                />
              </li>
            ))}
          </ul>
        </div>
      )}
    </details>
  )
}
