import { useState, type ReactNode } from 'react'
import {
  aKind,
  anchorWords,
  endOfDay,
  everyObjective,
  type Exception,
  type ExpectedPart,
  isModule,
  type Item,
  isHeld,
  itemKinds,
  modalities,
  type Module,
  parseAnchor,
  partsWithin,
  permissions,
  startOfDay,
  strengths,
  type Template,
} from '@wickerframe/core'
import { Button, Pick, plural } from '../../controls/controls.tsx'
import { Menu } from '../../controls/menu.tsx'
import { NumberLine, TextLine, Tick } from '../../controls/typed.tsx'
import { useDraftStore } from './draftStore.ts'
import { OffsetLine } from './OffsetLine.tsx'
import { makeDifferent } from './sheetEdits.ts'

const Group = ({ title, said, children }: { title: string; said: string; children: ReactNode }) => (
  <details className="border-t border-line py-1.5">
    <summary className="cursor-pointer">
      <span className="font-semibold">{title}</span> <span className="text-ink-3">{said}</span>
    </summary>
    <div className="grid gap-2 py-2">{children}</div>
  </details>
)

const useField = (part: string) => {
  const { edit } = useDraftStore()
  return (field: string[], was: unknown, value: unknown) =>
    void edit({ edit: 'set-field', part, field, was: was ?? null, value: value ?? null })
}
/** A list without a value, or with it; an empty one is said by leaving the field out. */
const toggled = <T,>(list: readonly T[] | undefined, value: T, on: boolean): T[] | null => {
  const next = on ? [...(list ?? []), value] : (list ?? []).filter((choice) => choice !== value)
  return next.length === 0 ? null : next
}

const Conditions = ({ part }: { part: Item | Module }) => {
  const set = useField(part.key)
  const { when } = part
  const put = (more: object) => {
    const next = Object.fromEntries(
      Object.entries({ ...when, ...more }).filter(
        ([, value]) => value !== null && value !== undefined,
      ),
    )
    set(['when'], when, Object.keys(next).length > 0 ? next : null)
  }
  return (
    <>
      <div className="flex flex-wrap gap-3">
        <span className="text-ink-2">Modality</span>
        {modalities.map((modality) => (
          <Tick
            key={modality}
            label={modality.replace('-', ' ')}
            checked={when?.modalities?.includes(modality) ?? false}
            onChange={(on) => put({ modalities: toggled(when?.modalities, modality, on) })}
          />
        ))}
      </div>
      <div className="flex flex-wrap items-end gap-3">
        <NumberLine
          label="Weeks from"
          least={1}
          most={60}
          value={when?.weeks?.from}
          onDone={(from) =>
            put({
              weeks: from === null ? null : { from, to: Math.max(from, when?.weeks?.to ?? from) },
            })
          }
        />
        <NumberLine
          label="to"
          least={1}
          most={60}
          value={when?.weeks?.to}
          onDone={(to) =>
            put({ weeks: to === null ? null : { from: Math.min(to, when?.weeks?.from ?? to), to } })
          }
        />
        <TextLine
          label="Departments"
          hint="apart by commas"
          value={(when?.departments ?? []).join(', ')}
          onDone={(text) => {
            const list = text
              .split(',')
              .map((choice) => choice.trim())
              .filter((choice) => choice !== '')
            put({ departments: list.length > 0 ? list : null })
          }}
        />
        <Pick
          label="Class sections"
          value={when?.classSections ?? ''}
          onChange={(event) => put({ classSections: event.target.value || null })}
          options={[
            { value: '', text: 'any' },
            { value: 'own', text: 'the college’s own' },
            { value: 'shared', text: 'shared between colleges' },
          ]}
        />
      </div>
    </>
  )
}

/** How long an event lasts, and where it is held. */
const Held = ({ part }: { part: Item }) => {
  const set = useField(part.key)
  const { minutes, where, published } = part.settings
  return (
    <div className="flex flex-wrap items-end gap-3">
      <NumberLine
        label="Minutes it lasts"
        least={1}
        most={6000}
        value={minutes}
        onDone={(value) => set(['settings', 'minutes'], minutes, value)}
      />
      <TextLine
        label="Where it is held"
        value={where ?? ''}
        onDone={(value) => set(['settings', 'where'], where, value.trim() || null)}
      />
      <Tick
        label="published when deployed"
        checked={published ?? true}
        onChange={(on) => set(['settings', 'published'], published, on ? null : false)}
      />
    </div>
  )
}

const Work = ({ part, template }: { part: Item; template: Template }) => {
  const set = useField(part.key)
  const { settings } = part
  const put = (field: string, value: unknown) =>
    set(['settings', field], settings[field as keyof typeof settings], value)
  return (
    <>
      <div className="flex flex-wrap items-end gap-3">
        <NumberLine
          label="Points"
          value={settings.points}
          onDone={(value) => put('points', value)}
        />
        <Pick
          label="Grade category"
          value={settings.category ?? ''}
          onChange={(event) => put('category', event.target.value || null)}
          options={[
            { value: '', text: 'none' },
            ...template.grading.categories.map((category) => ({
              value: category.name,
              text: category.name,
            })),
            ...(settings.category &&
            !template.grading.categories.some((category) => category.name === settings.category)
              ? [{ value: settings.category, text: settings.category }]
              : []),
          ]}
        />
        <Pick
          label="Rubric"
          value={settings.rubric ?? ''}
          onChange={(event) => put('rubric', event.target.value || null)}
          options={[
            { value: '', text: 'none' },
            ...template.rubrics.map((rubric) => ({ value: rubric.key, text: rubric.title })),
          ]}
        />
        <Pick
          label="Handed in"
          value={settings.handIn ?? ''}
          onChange={(event) => put('handIn', event.target.value || null)}
          options={[
            { value: '', text: 'not said' },
            ...['file', 'text', 'link', 'recording', 'on-paper', 'none'].map((choice) => ({
              value: choice,
              text: choice.replace('-', ' '),
            })),
          ]}
        />
      </div>
      <div className="flex flex-wrap items-end gap-3">
        <NumberLine
          label="Attempts"
          least={1}
          most={100}
          value={settings.attempts}
          onDone={(value) => put('attempts', value)}
        />
        <NumberLine
          label="Minutes allowed"
          least={1}
          most={6000}
          value={settings.minutes}
          onDone={(value) => put('minutes', value)}
        />
        <NumberLine
          label="Grace, minutes"
          most={600}
          value={settings.graceMinutes}
          onDone={(value) => put('graceMinutes', value)}
        />
      </div>
      <div className="flex flex-wrap gap-x-4">
        <Tick
          label="practice only, outside the grade"
          checked={settings.practice ?? false}
          onChange={(on) => put('practice', on || null)}
        />
        <Tick
          label="published when deployed"
          checked={settings.published ?? true}
          onChange={(on) => put('published', on ? null : false)}
        />
        {part.kind === 'discussion' && (
          <Tick
            label="students are told of new posts"
            checked={settings.notification ?? false}
            onChange={(on) => put('notification', on || null)}
          />
        )}
        {part.kind === 'discussion' && (
          <Tick
            label="write before reading others"
            checked={settings.postFirst ?? false}
            onChange={(on) => put('postFirst', on || null)}
          />
        )}
      </div>
    </>
  )
}

const Grouping = ({ part }: { part: Module }) => {
  const set = useField(part.key)
  const { groupings } = part
  if (!groupings)
    return (
      <Button
        shape="word"
        className="justify-self-start"
        onClick={() =>
          set(['groupings'], null, { min: 2, max: 8, name: 'Unit {unit} · {dates}{? · {topic}?}' })
        }
      >
        accept units in place of the weeks
      </Button>
    )
  return (
    <div className="flex flex-wrap items-end gap-3">
      <NumberLine
        label="At least"
        least={1}
        most={60}
        value={groupings.min}
        onDone={(min) =>
          min !== null &&
          set(['groupings'], groupings, { ...groupings, min, max: Math.max(min, groupings.max) })
        }
      />
      <NumberLine
        label="at most units"
        least={1}
        most={60}
        value={groupings.max}
        onDone={(max) =>
          max !== null &&
          set(['groupings'], groupings, { ...groupings, max, min: Math.min(max, groupings.min) })
        }
      />
      <TextLine
        label="A unit is named"
        className="grow"
        value={groupings.name}
        onDone={(name) => set(['groupings'], groupings, { ...groupings, name })}
      />
      <Button shape="word" onClick={() => set(['groupings'], groupings, null)}>
        accept no units
      </Button>
    </div>
  )
}

/** How one repetition differs: what it goes without, and fields of its own. */
export const ExceptionSlip = ({
  module,
  exception,
  template,
  onClose,
  onOpen,
}: {
  module: Module
  exception: Exception
  template: Template
  onClose: () => void
  onOpen: (key: string) => void
}) => {
  const { edit, mayEdit } = useDraftStore()
  const [which, setWhich] = useState(anchorWords(exception.anchor))
  const anchor = parseAnchor(which)
  const put = (more: Partial<Exception>) =>
    void edit({
      edit: 'set-field',
      part: module.key,
      field: ['exceptions', exception.key],
      was: exception,
      value: { ...exception, ...more },
    })
  const inside = partsWithin(module.items).filter(
    (part) => !isModule(part) || module.items.includes(part),
  )
  const setOf = (key: string) => exception.set.find(({ part }) => part === key)
  const putSet = (key: string, more: object) => {
    const next = Object.fromEntries(
      Object.entries({ ...setOf(key), part: key, ...more }).filter(
        ([, value]) => value !== null && value !== undefined,
      ),
    )
    const others = exception.set.filter(({ part }) => part !== key)
    put({
      set: Object.keys(next).length > 1 ? [...others, next as Exception['set'][number]] : others,
    })
  }
  const without = (key: string) => exception.leaveOut === 'all' || exception.leaveOut.includes(key)
  const settingsOf = (key: string) => setOf(key)?.settings
  return (
    <aside
      aria-label="Slip"
      className="h-[max(22rem,calc(100vh-16.5rem))] overflow-y-auto border-l border-line-strong bg-sheet p-4"
    >
      <div className="flex items-baseline justify-between gap-2">
        <h2 className="text-[18px]">
          “{module.name}” is different in {anchorWords(exception.anchor)}
        </h2>
        <Button shape="word" onClick={onClose}>
          close
        </Button>
      </div>
      <fieldset disabled={!mayEdit} className="mt-2 grid gap-3">
        <label className="flex flex-col gap-0.5 text-ink-2">
          Which repetition
          <input
            className={`border bg-sheet px-2 py-1 text-ink ${anchor.ok ? 'border-line-strong' : 'border-rust'}`}
            value={which}
            onChange={(event) => setWhich(event.target.value)}
            onBlur={() =>
              anchor.ok &&
              anchorWords(anchor.value) !== anchorWords(exception.anchor) &&
              put({ anchor: anchor.value })
            }
          />
          <span className="text-[12.5px]">
            {anchor.ok
              ? 'the first, the last, number 8, the last of each unit, or the pause week'
              : anchor.problems.message}
          </span>
        </label>
        <TextLine
          label="Named (as the others, when empty)"
          value={exception.name ?? ''}
          onDone={(name) => put({ name: name || undefined })}
        />
        <div className="flex flex-wrap gap-x-4">
          <Tick
            label="does not exist at all"
            checked={exception.omit}
            onChange={(omit) => put({ omit })}
          />
          <Tick
            label="goes without everything the others have"
            checked={exception.leaveOut === 'all'}
            onChange={(on) => put({ leaveOut: on ? 'all' : [] })}
          />
        </div>
        {exception.leaveOut !== 'all' && !exception.omit && (
          <table className="w-full text-left text-[13px]">
            <caption className="text-left text-ink-2">
              What the others have, and how it is here
            </caption>
            <thead>
              <tr className="border-b border-line-strong">
                <th scope="col" className="py-1">
                  Part
                </th>
                <th scope="col">Here</th>
                <th scope="col">Strength</th>
                <th scope="col">Points</th>
              </tr>
            </thead>
            <tbody>
              {inside.map((part) => (
                <tr key={part.key} className="border-b border-line">
                  <th scope="row" className="py-1 font-normal">
                    {part.name}
                  </th>
                  <td>
                    <Tick
                      label="there"
                      checked={!without(part.key)}
                      onChange={(on) =>
                        put({
                          leaveOut: on
                            ? (exception.leaveOut as string[]).filter((key) => key !== part.key)
                            : [...(exception.leaveOut as string[]), part.key],
                          set: on
                            ? exception.set
                            : exception.set.filter((choice) => choice.part !== part.key),
                        })
                      }
                    />
                  </td>
                  <td>
                    <select
                      aria-label={`Strength of ${part.name} here`}
                      className="bg-transparent"
                      disabled={without(part.key)}
                      value={setOf(part.key)?.strength ?? ''}
                      onChange={(event) =>
                        putSet(part.key, { strength: event.target.value || null })
                      }
                    >
                      <option value="">{part.strength}, as always</option>
                      {strengths.map((strength) => (
                        <option key={strength}>{strength}</option>
                      ))}
                    </select>
                  </td>
                  <td>
                    {!isModule(part) && part.kind !== 'page' && (
                      <NumberLine
                        label=""
                        name={`Points of ${part.name} here`}
                        value={settingsOf(part.key)?.points}
                        onDone={(points) =>
                          putSet(part.key, {
                            settings: points === null ? null : { ...settingsOf(part.key), points },
                          })
                        }
                      />
                    )}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        )}
        <div>
          <p className="font-semibold">Only here</p>
          {exception.add.length === 0 ? (
            <p className="text-ink-2">
              Nothing yet. In the sheet, press Ctrl Enter on this row to add a part, or drag one
              onto it.
            </p>
          ) : (
            <ul>
              {exception.add.map((part) => (
                <li key={part.key}>
                  <Button shape="word" onClick={() => onOpen(part.key)}>
                    {part.name}
                  </Button>
                </li>
              ))}
            </ul>
          )}
        </div>
        <p>
          <Button
            shape="word"
            onClick={() => {
              if (
                edit({
                  edit: 'set-field',
                  part: module.key,
                  field: ['exceptions', exception.key],
                  was: exception,
                  value: null,
                })
              )
                onClose()
            }}
          >
            make it like the others again
          </Button>
        </p>
      </fieldset>
      {template.extends && (
        <p className="mt-2 text-ink-3">
          In a layer, an exception may add; it takes away nothing that stands above.
        </p>
      )}
    </aside>
  )
}

/** Everything about a part besides its page. */
export const PartSettings = ({
  part,
  expected,
  template,
  timeZone,
  onOpen,
}: {
  part: Item | Module
  expected: ExpectedPart | null
  template: Template
  timeZone: string | null
  onOpen: (key: string) => void
}) => {
  const { edit, mayEdit } = useDraftStore()
  const set = useField(part.key)
  const assessable = everyObjective(template)
  const others = partsWithin(template.parts).filter(
    (choice) => choice.key !== part.key && !isModule(choice),
  )
  const { settings } = part
  const dated = [
    ['opens', 'Opens', expected?.opensAt],
    ['due', isHeld(part) ? 'Held' : 'Due', expected?.dueAt],
    ['closes', 'Shuts', expected?.closesAt],
  ] as const
  const different = (anchor: Exception['anchor']) => {
    const made = makeDifferent(part.key, anchor, template)
    if (edit(...made.edits)) onOpen(made.key)
  }
  return (
    <fieldset disabled={!mayEdit} className="mt-2">
      <div className="flex flex-wrap gap-4 pb-2">
        <Pick
          inline
          label="Seen by"
          value={part.audience}
          onChange={(event) => set(['audience'], part.audience, event.target.value)}
          options={['students', 'staff', 'backstage'].map((choice) => ({
            value: choice,
            text: choice,
          }))}
        />
        <Pick
          inline
          label="Place"
          value={part.position}
          onChange={(event) => set(['position'], part.position, event.target.value)}
          options={['in-order', 'first', 'last', 'anywhere', 'newest-first'].map((choice) => ({
            value: choice,
            text: choice.replace('-', ' '),
          }))}
        />
        <Pick
          inline
          label="Span"
          value={part.span}
          onChange={(event) => set(['span'], part.span, event.target.value)}
          options={[
            { value: 'module', text: 'its module' },
            { value: 'course', text: 'the whole course' },
          ]}
        />
      </div>
      <Group
        title="Dates"
        said={
          dated
            .filter(([field]) => settings[field])
            .map(([, label]) => label.toLowerCase())
            .join(', ') || 'none'
        }
      >
        {dated
          .filter(([field]) => field === 'opens' || !isModule(part))
          .map(([field, label, instant]) => (
            <OffsetLine
              key={`${field} ${JSON.stringify(settings[field] ?? null)}`}
              label={label}
              value={settings[field]}
              instant={instant ?? null}
              timeZone={timeZone}
              usualTime={field === 'opens' ? startOfDay : endOfDay}
              disabled={!mayEdit}
              onDone={(value) => set(['settings', field], settings[field], value)}
            />
          ))}
      </Group>
      {!isModule(part) && isHeld(part) && (
        <Group
          title="Length and place"
          said={
            [
              settings.minutes === undefined ? '' : plural(settings.minutes, 'minute'),
              settings.where,
            ]
              .filter(Boolean)
              .join(', ') || 'not said'
          }
        >
          <Held part={part} />
        </Group>
      )}
      {!isModule(part) && !isHeld(part) && (
        <Group
          title="Work"
          said={
            [
              settings.points === undefined ? '' : `${settings.points} points`,
              settings.category,
              settings.practice ? 'practice' : '',
            ]
              .filter(Boolean)
              .join(', ') || 'not marked'
          }
        >
          <Work part={part} template={template} />
        </Group>
      )}
      {isModule(part) && part.repeat && (
        <Group
          title="Different repetitions"
          said={
            part.exceptions.length === 0
              ? 'none: all alike'
              : part.exceptions.map((exception) => anchorWords(exception.anchor)).join(', ')
          }
        >
          <ul>
            {part.exceptions.map((exception) => (
              <li key={exception.key}>
                <Button shape="word" onClick={() => onOpen(exception.key)}>
                  {anchorWords(exception.anchor)}
                </Button>
              </li>
            ))}
          </ul>
          <p className="flex flex-wrap gap-3">
            Make different{' '}
            {(
              [
                ['first', 'the first'],
                ['last', 'the last'],
                ['last-of-unit', 'the last of each unit'],
                ['pause', 'the pause week'],
              ] as const
            )
              .filter(([at]) => !part.exceptions.some((exception) => exception.anchor.at === at))
              .map(([at, words]) => (
                <Button key={at} shape="word" onClick={() => different({ at })}>
                  {words}
                </Button>
              ))}
          </p>
        </Group>
      )}
      {isModule(part) && part.repeat?.per === 'week' && (
        <Group
          title="Units in place of weeks"
          said={
            part.groupings
              ? `${part.groupings.min} to ${part.groupings.max} accepted`
              : 'not accepted'
          }
        >
          <Grouping part={part} />
        </Group>
      )}
      {!isModule(part) && (
        <Group title="What may stand in for it" said={part.acceptsInstead.join(', ') || 'nothing'}>
          <div className="flex flex-wrap gap-x-3">
            {itemKinds
              .filter((kind) => kind !== part.kind && kind !== 'heading')
              .map((kind) => (
                <Tick
                  key={kind}
                  label={aKind(kind)}
                  checked={part.acceptsInstead.includes(kind)}
                  onChange={(on) =>
                    set(
                      ['acceptsInstead'],
                      part.acceptsInstead,
                      toggled(part.acceptsInstead, kind, on) ?? [],
                    )
                  }
                />
              ))}
          </div>
          <Menu
            shape="word"
            className="justify-self-start"
            label="or another part"
            groups={[
              {
                items: others
                  .filter((other) => !part.acceptsInstead.includes(other.key))
                  .map((other) => ({ value: other.key, text: other.name })),
              },
            ]}
            onPick={(key) =>
              set(['acceptsInstead'], part.acceptsInstead, [...part.acceptsInstead, key])
            }
          />
          {part.acceptsInstead
            .filter((choice) => !itemKinds.some((kind) => kind === choice))
            .map((key) => (
              <Button
                key={key}
                shape="word"
                className="justify-self-start"
                onClick={() =>
                  set(
                    ['acceptsInstead'],
                    part.acceptsInstead,
                    part.acceptsInstead.filter((choice) => choice !== key),
                  )
                }
              >
                not {key} any more
              </Button>
            ))}
          <Pick
            inline
            label="Where units stand in place of weeks it is wanted"
            value={part.inGroup}
            onChange={(event) => set(['inGroup'], part.inGroup, event.target.value)}
            options={[
              { value: 'per-unit', text: 'once a unit' },
              { value: 'per-week', text: 'every week' },
            ]}
          />
        </Group>
      )}
      <Group title="Only for some courses" said={part.when ? 'yes' : 'for all'}>
        <Conditions part={part} />
      </Group>
      <Group
        title="What instructors may do"
        said={permissions.filter((permission) => part.may[permission]).join(', ') || 'fill in only'}
      >
        <div className="flex flex-wrap gap-x-4">
          {permissions.map((permission) => (
            <Tick
              key={permission}
              label={permission}
              checked={part.may[permission] ?? false}
              onChange={(on) => set(['may', permission], part.may[permission], on || null)}
            />
          ))}
        </div>
      </Group>
      <Group title="Basis" said={part.basis ?? 'none given'}>
        <TextLine
          label="The quality criterion or policy it rests on"
          value={part.basis ?? ''}
          onDone={(basis) => set(['basis'], part.basis, basis || null)}
        />
      </Group>
      {!isModule(part) && (
        <Group
          title="Assesses"
          said={
            part.assesses.length === 0
              ? 'no outcome'
              : `${part.assesses.length} of ${assessable.length}`
          }
        >
          {assessable.length === 0 && (
            <p className="text-ink-2">
              The template has no outcomes yet; they are written under Outcomes.
            </p>
          )}
          {assessable.map((choice) => (
            <Tick
              key={`${choice.part ?? ''} ${choice.key}`}
              label={choice.text}
              checked={part.assesses.includes(choice.key)}
              onChange={(on) =>
                set(['assesses'], part.assesses, toggled(part.assesses, choice.key, on) ?? [])
              }
            />
          ))}
        </Group>
      )}
      {(part.kind === 'web-link' || part.kind === 'tool-link') && (
        <TextLine
          label="Leads to"
          value={'url' in part ? (part.url ?? '') : ''}
          onDone={(url) => set(['url'], 'url' in part ? part.url : null, url || null)}
        />
      )}
    </fieldset>
  )
}
