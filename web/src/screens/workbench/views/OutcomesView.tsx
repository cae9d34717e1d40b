import { useMemo } from 'react'
import { linkHorizontal } from 'd3'
import { freshKey, outcomeCoverage, type Template } from '@wickerframe/core'
import { Button } from '../../../controls/controls.tsx'
import { TextLine } from '../../../controls/typed.tsx'
import { useDraftStore } from '../draftStore.ts'

const rowHeight = 34
const columnX = { outcome: 300, objectiveLeft: 420, objectiveRight: 760, work: 880 }
const width = 1180

/** Course outcomes, the objectives that serve them, the work that assesses them: strands from left to right. */
const CoverageDrawing = ({ template }: { template: Template }) => {
  const drawn = useMemo(() => {
    const coverage = outcomeCoverage(template)
    const objectives = [
      ...new Map(
        coverage
          .flatMap(({ objectives }) => objectives)
          .map((objective) => [objective.key, objective]),
      ).values(),
    ]
    const work = [
      ...new Map(
        coverage
          .flatMap(({ assessedBy }) => assessedBy)
          .map((assessed) => [assessed.key, assessed]),
      ).values(),
    ]
    const place = (list: readonly { key: string }[]) =>
      new Map(list.map(({ key }, i) => [key, 24 + i * rowHeight]))
    const at = {
      outcome: place(coverage.map(({ outcome }) => outcome)),
      objective: place(objectives),
      work: place(work),
    }
    const strand = linkHorizontal<unknown, [number, number]>()
    const join = (from: [number, number], to: [number, number]) =>
      strand({ source: from, target: to }) ?? ''
    const strands = [
      ...objectives.flatMap((objective) =>
        objective.serves.flatMap((key) => {
          const [from, to] = [at.outcome.get(key), at.objective.get(objective.key)]
          return from === undefined || to === undefined
            ? []
            : [
                {
                  key: `${key} ${objective.key}`,
                  path: join([columnX.outcome, from], [columnX.objectiveLeft, to]),
                },
              ]
        }),
      ),
      ...work.flatMap((item) =>
        item.assesses.flatMap((key) => {
          const to = at.work.get(item.key)
          const objective = at.objective.get(key)
          const outcome = at.outcome.get(key)
          if (to === undefined) return []
          if (objective !== undefined)
            return [
              {
                key: `${key} ${item.key}`,
                path: join([columnX.objectiveRight, objective], [columnX.work, to]),
              },
            ]
          return outcome === undefined
            ? []
            : [
                {
                  key: `${key} ${item.key}`,
                  path: join([columnX.outcome, outcome], [columnX.work, to]),
                  direct: true,
                },
              ]
        }),
      ),
    ]
    return {
      coverage,
      objectives,
      work,
      at,
      strands,
      height: 24 + Math.max(coverage.length, objectives.length, work.length, 1) * rowHeight,
    }
  }, [template])
  const short = (text: string, most: number) =>
    text.length > most ? `${text.slice(0, most - 1)}…` : text
  return (
    <figure className="mt-3 overflow-x-auto">
      <svg
        viewBox={`0 0 ${width} ${drawn.height}`}
        className="w-full min-w-[50rem]"
        role="img"
        aria-label={drawn.coverage
          .map(
            ({ outcome, objectives, assessedBy }) =>
              `${outcome.text}: ${objectives.length} objectives, assessed by ${assessedBy.length === 0 ? 'nothing' : assessedBy.map((item) => item.name).join(', ')}`,
          )
          .join('. ')}
      >
        {drawn.strands.map((strand) => (
          <path
            key={strand.key}
            d={strand.path}
            fill="none"
            stroke={'direct' in strand ? 'var(--color-slate)' : 'var(--color-ink)'}
            strokeWidth={'direct' in strand ? 1 : 1.75}
          />
        ))}
        {drawn.coverage.map(({ outcome, assessedBy }) => (
          <g key={outcome.key} transform={`translate(0 ${drawn.at.outcome.get(outcome.key) ?? 0})`}>
            <title>{outcome.text}</title>
            <text y="4" fontSize="13" fill="var(--color-ink)">
              {short(outcome.text, 44)}
            </text>
            {assessedBy.length === 0 && (
              <>
                <line
                  x1={columnX.outcome}
                  x2={columnX.outcome + 40}
                  stroke="var(--color-rust)"
                  strokeWidth="2"
                  strokeDasharray="5 4"
                />
                <text x={columnX.outcome + 46} y="4" fontSize="12" fill="var(--color-rust)">
                  not assessed
                </text>
              </>
            )}
          </g>
        ))}
        {drawn.objectives.map((objective) => (
          <g
            key={objective.key}
            transform={`translate(${columnX.objectiveLeft} ${drawn.at.objective.get(objective.key) ?? 0})`}
          >
            <title>{objective.text}</title>
            <text
              x="6"
              y="4"
              fontSize="13"
              fill="var(--color-ink-2)"
              stroke="var(--color-sheet)"
              strokeWidth="7"
              paintOrder="stroke"
            >
              {short(objective.text, 46)}
            </text>
          </g>
        ))}
        {drawn.work.map((item) => (
          <g
            key={item.key}
            transform={`translate(${columnX.work} ${drawn.at.work.get(item.key) ?? 0})`}
          >
            <title>{item.name}</title>
            <text x="6" y="4" fontSize="13" fill="var(--color-ink)">
              {short(item.name, 40)}
            </text>
          </g>
        ))}
      </svg>
      <figcaption className="text-ink-2">
        Left the course outcomes, in the middle the objectives that serve them, right the work that
        assesses either; a thin strand goes straight from outcome to work. A strand that breaks off
        is an outcome nothing assesses.
      </figcaption>
    </figure>
  )
}

/** Course outcomes and how far objectives and work cover them. */
export const OutcomesView = ({
  template,
  onOpen,
}: {
  template: Template
  onOpen: (key: string) => void
}) => {
  const { edit, mayEdit } = useDraftStore()
  const set = (field: string[], was: unknown, value: unknown) =>
    void edit({ edit: 'set-field', part: null, field, was: was ?? null, value: value ?? null })
  const coverage = outcomeCoverage(template)
  return (
    <div className="mt-3 bg-sheet p-4">
      <h2 className="text-[18px]">Course outcomes</h2>
      <p className="text-ink-2">
        What a student can do after the course. Objectives of modules and pages serve them; which
        work assesses what is said on the work’s own slip.
      </p>
      <fieldset disabled={!mayEdit}>
        <ol className="mt-2 divide-y divide-line">
          {coverage.map(({ outcome, objectives, assessedBy }, i) => (
            <li
              key={outcome.key}
              className="grid grid-cols-[minmax(0,1fr)_20rem_5rem] items-end gap-3 py-1.5"
            >
              <TextLine
                label={`Outcome ${i + 1}`}
                value={outcome.text}
                onDone={(text) =>
                  text.trim() !== '' &&
                  set(['outcomes', outcome.key, 'text'], outcome.text, text.trim())
                }
              />
              <p className={assessedBy.length === 0 ? 'text-rust' : 'text-ink-2'}>
                {objectives.length} {objectives.length === 1 ? 'objective' : 'objectives'};{' '}
                {assessedBy.length === 0 ? (
                  'no work assesses it'
                ) : (
                  <>
                    assessed by{' '}
                    {assessedBy.map((item) => (
                      <Button
                        key={item.key}
                        shape="word"
                        className="mr-2 py-0!"
                        onClick={() => onOpen(item.key)}
                      >
                        {item.name}
                      </Button>
                    ))}
                  </>
                )}
              </p>
              <Button shape="word" onClick={() => set(['outcomes', outcome.key], outcome, null)}>
                remove
              </Button>
            </li>
          ))}
        </ol>
        <Button
          className="mt-2"
          onClick={() => {
            const key = freshKey(
              'outcome',
              new Set(template.outcomes.map((outcome) => outcome.key)),
            )
            set(['outcomes', key], null, {
              key,
              text: `Outcome ${template.outcomes.length + 1}, beginning with a verb you could test`,
            })
          }}
        >
          Add an outcome
        </Button>
      </fieldset>
      {coverage.length > 0 && <CoverageDrawing template={template} />}
    </div>
  )
}
