import { useRef, useState } from 'react'
import {
  everyItem,
  freshKey,
  rubricPoints,
  weightsTotal,
  type Rubric,
  type Template,
} from '@wickerframe/core'
import { send } from '../../../api/client.ts'
import { Button, Pick, plural } from '../../../controls/controls.tsx'
import { NumberLine, TextLine, Tick } from '../../../controls/typed.tsx'
import { useDraftStore } from '../draftStore.ts'
import { PutIntoLibrary, TakeFromLibrary } from '../LibraryMenu.tsx'

/** A rubric as a table: criteria down, levels across, points under each. */
export const RubricTable = ({
  rubric,
  disabled,
  onChange,
}: {
  rubric: Rubric
  disabled: boolean
  onChange: (rubric: Rubric) => void
}) => {
  const setCriterion = (index: number, more: Partial<Rubric['criteria'][number]>) =>
    onChange({
      ...rubric,
      criteria: rubric.criteria.map((criterion, i) =>
        i === index ? { ...criterion, ...more } : criterion,
      ),
    })
  const columns = Math.max(...rubric.criteria.map(({ levels }) => levels.length))
  return (
    <fieldset disabled={disabled}>
      <div className="overflow-x-auto">
        <table className="w-full border-collapse text-left align-top">
          <caption className="sr-only">{rubric.title}</caption>
          <thead>
            <tr className="border-b border-line-strong text-[12.5px]">
              <th scope="col" className="w-48">
                Criterion
              </th>
              {Array.from({ length: columns }, (_, i) => (
                <th key={i} scope="col">
                  Level {i + 1}
                </th>
              ))}
              <th scope="col" className="w-16">
                At most
              </th>
            </tr>
          </thead>
          <tbody>
            {rubric.criteria.map((criterion, c) => (
              <tr key={c} className="border-b border-line align-top">
                <th scope="row" className="py-1 pr-2 font-normal">
                  <TextLine
                    label=""
                    aria-label={`Criterion ${c + 1}`}
                    value={criterion.text}
                    onDone={(text) => text.trim() !== '' && setCriterion(c, { text })}
                  />
                </th>
                {criterion.levels.map((level, l) => {
                  const set = (more: Partial<typeof level>) =>
                    setCriterion(c, {
                      levels: criterion.levels.map((level, i) =>
                        i === l ? { ...level, ...more } : level,
                      ),
                    })
                  return (
                    <td key={l} className="py-1 pr-2">
                      <TextLine
                        label=""
                        aria-label={`Criterion ${c + 1}, level ${l + 1}`}
                        value={level.text}
                        onDone={(text) => set({ text })}
                      />
                      <span className="mt-1 flex items-baseline gap-1 text-ink-2">
                        <NumberLine
                          label=""
                          name={`Points of criterion ${c + 1}, level ${l + 1}`}
                          value={level.points}
                          onDone={(points) => set({ points: points ?? 0 })}
                        />
                        points
                      </span>
                    </td>
                  )
                })}
                <td>{Math.max(...criterion.levels.map((level) => level.points))}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      <p className="flex gap-4">
        <Button
          shape="word"
          onClick={() =>
            onChange({
              ...rubric,
              criteria: [
                ...rubric.criteria,
                {
                  text: 'New criterion',
                  levels: Array.from({ length: columns }, (_, i) => ({
                    text: '',
                    points: (columns - 1 - i) * 5,
                  })),
                },
              ],
            })
          }
        >
          add a criterion
        </Button>
        <Button
          shape="word"
          disabled={columns >= 10}
          onClick={() =>
            onChange({
              ...rubric,
              criteria: rubric.criteria.map((criterion) => ({
                ...criterion,
                levels: [...criterion.levels, { text: '', points: 0 }],
              })),
            })
          }
        >
          add a level
        </Button>
        <Button
          shape="word"
          disabled={columns <= 1}
          onClick={() =>
            onChange({
              ...rubric,
              criteria: rubric.criteria.map((criterion) => ({
                ...criterion,
                levels: criterion.levels.slice(0, -1),
              })),
            })
          }
        >
          take the last level out
        </Button>
        <Button
          shape="word"
          disabled={rubric.criteria.length <= 1}
          onClick={() => onChange({ ...rubric, criteria: rubric.criteria.slice(0, -1) })}
        >
          take the last criterion out
        </Button>
      </p>
    </fieldset>
  )
}

/** How scores make a grade, and by what work is judged. */
export const GradingView = ({
  template,
  onOpen,
}: {
  template: Template
  onOpen: (key: string) => void
}) => {
  const { edit, mayEdit } = useDraftStore()
  const file = useRef<HTMLInputElement>(null)
  const [fileProblem, setFileProblem] = useState<string | null>(null)
  const set = (field: string[], was: unknown, value: unknown) =>
    void edit({ edit: 'set-field', part: null, field, was: was ?? null, value: value ?? null })
  const { grading, rubrics } = template
  const total = weightsTotal(grading)
  const items = everyItem(template).filter(
    (item) => item.settings.points !== undefined || item.settings.category !== undefined,
  )
  const putRubric = (rubric: Rubric) =>
    set(
      ['rubrics', rubric.key],
      rubrics.find(({ key }) => key === rubric.key),
      rubric,
    )
  const freshRubric = (title: string, criteria: Rubric['criteria']) =>
    putRubric({
      key: freshKey(title, new Set(rubrics.map((rubric) => rubric.key))),
      title,
      criteria,
    })
  const read = async (chosen: File) => {
    try {
      const { criteria } = await send('readRubricFile', chosen, 'text/csv')
      setFileProblem(null)
      freshRubric(chosen.name.replace(/\.[^.]*$/, ''), criteria)
    } catch (cause) {
      setFileProblem(cause instanceof Error ? cause.message : String(cause))
    }
  }
  return (
    <div className="mt-3 grid gap-6">
      <fieldset disabled={!mayEdit} className="bg-sheet p-4">
        <h2 className="text-[18px]">Grade scheme</h2>
        <div className="mt-2 flex flex-wrap gap-4">
          <Tick
            label="categories carry weights"
            checked={grading.weighted}
            onChange={(on) => set(['grading', 'weighted'], grading.weighted, on)}
          />
          <Pick
            inline
            label="Students see scores"
            value={grading.shown}
            onChange={(event) => set(['grading', 'shown'], grading.shown, event.target.value)}
            options={[
              { value: 'rolled-up', text: 'rolled up by category' },
              { value: 'item-by-item', text: 'item by item' },
            ]}
          />
        </div>
        <table className="mt-2 w-full border-collapse text-left">
          <thead>
            <tr className="border-b border-line-strong text-[12.5px]">
              <th scope="col" className="py-1">
                Category
              </th>
              <th scope="col">Weight</th>
              <th scope="col">Counts</th>
              <th scope="col">Work in it</th>
              <th scope="col">
                <span className="sr-only">Remove</span>
              </th>
            </tr>
          </thead>
          <tbody>
            {grading.categories.map((category) => (
              <tr key={category.key} className="border-b border-line align-baseline">
                <td className="py-1">
                  <TextLine
                    label=""
                    aria-label={`Name of ${category.name}`}
                    value={category.name}
                    onDone={(name) => {
                      if (name.trim() === '') return
                      // Work that stands in the category goes along.
                      edit(
                        {
                          edit: 'set-field',
                          part: null,
                          field: ['grading', 'categories', category.key, 'name'],
                          was: category.name,
                          value: name,
                        },
                        ...items
                          .filter((item) => item.settings.category === category.name)
                          .map((item) => ({
                            edit: 'set-field' as const,
                            part: item.key,
                            field: ['settings', 'category'],
                            was: category.name,
                            value: name,
                          })),
                      )
                    }}
                  />
                </td>
                <td>
                  {grading.weighted && category.counts ? (
                    <NumberLine
                      label=""
                      name={`Weight of ${category.name}`}
                      most={100}
                      value={category.weight}
                      onDone={(weight) =>
                        set(
                          ['grading', 'categories', category.key, 'weight'],
                          category.weight,
                          weight ?? 0,
                        )
                      }
                    />
                  ) : (
                    <span className="text-ink-3">none</span>
                  )}
                </td>
                <td>
                  <Pick
                    label=""
                    inline
                    aria-label={`${category.name} counts`}
                    value={category.counts ? 'counts' : 'practice'}
                    onChange={(event) =>
                      set(
                        ['grading', 'categories', category.key, 'counts'],
                        category.counts,
                        event.target.value === 'counts',
                      )
                    }
                    options={[
                      { value: 'counts', text: 'in the grade' },
                      { value: 'practice', text: 'practice' },
                    ]}
                  />
                </td>
                <td>
                  {items
                    .filter((item) => item.settings.category === category.name)
                    .map((item) => (
                      <Button
                        key={item.key}
                        shape="word"
                        className="mr-3"
                        onClick={() => onOpen(item.key)}
                      >
                        {item.name}
                        {item.settings.points === undefined ? '' : ` (${item.settings.points})`}
                      </Button>
                    ))}
                </td>
                <td>
                  <Button
                    shape="word"
                    onClick={() => set(['grading', 'categories', category.key], category, null)}
                  >
                    remove
                  </Button>
                </td>
              </tr>
            ))}
          </tbody>
          {grading.weighted && grading.categories.length > 0 && (
            <tfoot>
              <tr>
                <th scope="row" className="py-1">
                  Together
                </th>
                <td colSpan={4} className={total === 100 ? '' : 'text-rust'}>
                  {total} of 100
                  {total === 100
                    ? ''
                    : `; ${total < 100 ? `${Math.round((100 - total) * 100) / 100} are missing` : `${Math.round((total - 100) * 100) / 100} too many`}`}
                </td>
              </tr>
            </tfoot>
          )}
        </table>
        {grading.categories.length === 0 && (
          <p className="text-ink-2">No categories yet: every item’s points count as they are.</p>
        )}
        <Button
          className="mt-2"
          onClick={() => {
            const key = freshKey(
              'category',
              new Set(grading.categories.map((category) => category.key)),
            )
            set(['grading', 'categories', key], null, {
              key,
              name: `New category ${grading.categories.length + 1}`,
              weight: Math.max(0, 100 - total),
              counts: true,
            })
          }}
        >
          Add a category
        </Button>
      </fieldset>
      <section className="bg-sheet p-4">
        <h2 className="text-[18px]">Rubrics</h2>
        {rubrics.length === 0 && (
          <p className="text-ink-2">
            A rubric says by what work is judged. Make one here, or read one from a file: a table
            with the criterion first, then a column for each level whose head ends in its points,
            such as “Excellent (10)”.
          </p>
        )}
        {rubrics.map((rubric) => {
          const used = everyItem(template).filter((item) => item.settings.rubric === rubric.key)
          return (
            <details
              key={rubric.key}
              className="border-t border-line py-2"
              open={rubrics.length === 1}
            >
              <summary className="cursor-pointer">
                <span className="font-semibold">{rubric.title}</span>{' '}
                <span className="text-ink-3">
                  {rubricPoints(rubric)} points,{' '}
                  {plural(rubric.criteria.length, 'criterion', 'criteria')};{' '}
                  {used.length === 0
                    ? 'judges nothing yet'
                    : `judges ${used.map((item) => item.name).join(', ')}`}
                </span>
              </summary>
              <div className="py-2">
                <div className="flex flex-wrap items-end gap-4">
                  <TextLine
                    label="Title"
                    value={rubric.title}
                    onDone={(title) => title.trim() !== '' && putRubric({ ...rubric, title })}
                  />
                  <Button
                    shape="word"
                    disabled={used.length > 0 || !mayEdit}
                    title={
                      used.length > 0 ? 'it judges work; choose another rubric there first' : ''
                    }
                    onClick={() => set(['rubrics', rubric.key], rubric, null)}
                  >
                    remove
                  </Button>
                  <PutIntoLibrary put={{ kind: 'rubric', was: null, document: rubric }} />
                </div>
                <RubricTable rubric={rubric} disabled={!mayEdit} onChange={putRubric} />
              </div>
            </details>
          )
        })}
        {mayEdit && (
          <p className="mt-2 flex flex-wrap items-center gap-3">
            <Button
              onClick={() =>
                freshRubric(`Rubric ${rubrics.length + 1}`, [
                  {
                    text: 'New criterion',
                    levels: [
                      { text: 'Met', points: 10 },
                      { text: 'Partly', points: 5 },
                      { text: 'Not met', points: 0 },
                    ],
                  },
                ])
              }
            >
              Make a rubric
            </Button>
            <TakeFromLibrary template={template} kind="rubric" />
            <label className="text-ink-2">
              or read one from a CSV file{' '}
              <input
                ref={file}
                type="file"
                accept=".csv,text/csv"
                onChange={(event) => {
                  const [chosen] = event.target.files ?? []
                  if (chosen) void read(chosen)
                }}
              />
            </label>
          </p>
        )}
        {fileProblem && (
          <p role="alert" className="border-l-4 border-rust bg-rust-soft px-3 py-1">
            That file is not a rubric: {fileProblem}
          </p>
        )}
      </section>
    </div>
  )
}
