import type { ReactNode } from 'react'
import { holdings, modalities, strengths, type Holding, type Sentences } from '@wickerframe/core'
import { Tick } from '../../controls/typed.tsx'

const Blank = ({
  label,
  value,
  options,
  onChange,
}: {
  label: string
  value: string
  options: readonly (readonly [string, string])[]
  onChange: (value: string) => void
}) => (
  <select
    aria-label={label}
    className="mx-1 border-0 border-b-2 border-tide bg-sheet px-1 text-ink"
    value={value}
    onChange={(event) => onChange(event.target.value)}
  >
    {options.map(([id, text]) => (
      <option key={id} value={id}>
        {text}
      </option>
    ))}
  </select>
)
const Sentence = ({ children }: { children: ReactNode }) => (
  <p className="py-1.5 leading-8">{children}</p>
)
const holdingWords: Readonly<Record<Holding, string>> = {
  overview: 'an overview',
  reading: 'a reading',
  video: 'a video',
  notes: 'notes',
  discussion: 'a discussion',
  assignment: 'an assignment',
  quiz: 'an assessment',
  checklist: 'a checklist',
}

/** One page of sentences with blanks; the outline grows beside it. */
export const SentencesPage = ({
  answers,
  onChange,
}: {
  answers: Sentences
  onChange: (answers: Sentences) => void
}) => {
  const put = (more: Partial<Sentences>) => onChange({ ...answers, ...more })
  const putHolding = (what: Holding, more: Partial<Sentences['holds'][number]> | null) => {
    const others = answers.holds.filter((hold) => hold.what !== what)
    const now = answers.holds.find((hold) => hold.what === what) ?? {
      what,
      strength: 'must' as const,
      often: 'each' as const,
      points:
        what === 'assignment' ? 100 : what === 'quiz' ? 20 : what === 'discussion' ? 10 : null,
    }
    put({ holds: more === null ? others : [...others, { ...now, ...more }] })
  }
  const unit = { week: 'week', unit: 'unit', day: 'day' }[answers.per]
  return (
    <div className="font-serif text-[15.5px]">
      <Sentence>
        It is for courses taught
        <span className="mx-2 inline-flex flex-wrap gap-x-3 font-sans text-[14px]">
          {modalities.map((modality) => (
            <Tick
              key={modality}
              label={modality.replace('-', ' ')}
              checked={answers.modalities.includes(modality)}
              onChange={(on) => {
                const next = on
                  ? [...answers.modalities, modality]
                  : answers.modalities.filter((other) => other !== modality)
                if (next.length > 0) put({ modalities: next })
              }}
            />
          ))}
        </span>
        over
        <Blank
          label="Weeks"
          value={answers.lengths.join(',')}
          onChange={(value) => put({ lengths: value.split(',').map(Number) })}
          options={[
            ['16', '16'],
            ['15', '15'],
            ['16,15', '16 or 15'],
            ['10', '10'],
            ['8', '8'],
            ['7', '7'],
            ['8,7', '8 or 7'],
          ]}
        />
        weeks.
      </Sentence>
      <Sentence>
        It is divided into
        <Blank
          label="Divided into"
          value={answers.per}
          onChange={(value) =>
            put({
              per: value as Sentences['per'],
              ...(value === 'unit' && answers.units === null ? { units: 4 } : {}),
            })
          }
          options={[
            ['week', 'weeks'],
            ['unit', 'units'],
            ['day', 'class days'],
          ]}
        />
        , which make up
        <Blank
          label="Units"
          value={String(answers.units ?? '')}
          onChange={(value) => put({ units: value === '' ? null : Number(value) })}
          options={[
            ...(answers.per === 'unit' ? [] : [['', 'no units'] as const]),
            ['2', '2 units'],
            ['3', '3 units'],
            ['4', '4 units'],
            ['5', '5 units'],
            ['6', '6 units'],
            ['8', '8 units'],
          ]}
        />
        . Each is named by its
        <Blank
          label="Named by"
          value={answers.named}
          onChange={(value) => put({ named: value as Sentences['named'] })}
          options={[
            ['number', 'number'],
            ['number-dates', 'number and dates'],
            ['number-topic', 'number and topic'],
            ['number-dates-topic', 'number, dates and topic'],
          ]}
        />
        .
      </Sentence>
      <p className="pt-1.5">Each {unit} holds</p>
      <ul className="my-1 border-l-2 border-line pl-4">
        {holdings.map((what) => {
          const holding = answers.holds.find((other) => other.what === what)
          return (
            <li key={what} className="flex flex-wrap items-baseline gap-x-2 py-0.5">
              <Tick
                label={holdingWords[what]}
                checked={holding !== undefined}
                onChange={(on) => putHolding(what, on ? {} : null)}
              />
              {holding && (
                <span className="text-[14.5px] text-ink-2">
                  , a
                  <Blank
                    label={`Strength of ${what}`}
                    value={holding.strength}
                    onChange={(value) =>
                      putHolding(what, { strength: value as (typeof strengths)[number] })
                    }
                    options={strengths.map((strength) => [strength, strength])}
                  />
                  <Blank
                    label={`How often: ${what}`}
                    value={holding.often}
                    onChange={(value) => putHolding(what, { often: value as typeof holding.often })}
                    options={[
                      ['each', `in each ${unit}`],
                      ...(answers.per === 'week'
                        ? [['every-other', 'in every other week'] as const]
                        : []),
                      ...(answers.units !== null && answers.per === 'week'
                        ? [['end-of-unit', 'at the end of each unit'] as const]
                        : []),
                    ]}
                  />
                  {(what === 'discussion' || what === 'assignment' || what === 'quiz') && (
                    <>
                      worth{' '}
                      <input
                        aria-label={`Points of ${what}`}
                        inputMode="numeric"
                        className="w-14 border-0 border-b-2 border-tide bg-sheet px-1 text-ink"
                        value={holding.points ?? ''}
                        onChange={(event) => {
                          const points =
                            event.target.value === '' ? null : Number(event.target.value)
                          if (
                            points === null ||
                            (Number.isFinite(points) && points >= 0 && points <= 1000)
                          )
                            putHolding(what, { points })
                        }}
                      />{' '}
                      points
                    </>
                  )}
                </span>
              )}
            </li>
          )
        })}
      </ul>
      <Sentence>
        The grade is made from{' '}
        <Blank
          label="Grading"
          value={answers.grading}
          onChange={(value) => put({ grading: value as Sentences['grading'] })}
          options={[
            ['weights', 'categories with weights'],
            ['points', 'points as they are'],
            ['none', 'nothing the template says'],
          ]}
        />
        .
      </Sentence>
      <Sentence>
        Modules open{' '}
        <Blank
          label="Opening"
          value={answers.opens}
          onChange={(value) => put({ opens: value as Sentences['opens'] })}
          options={[
            ['week-by-week', 'week by week'],
            ['all-at-once', 'all on opening day'],
          ]}
        />
        {answers.per === 'week' && (
          <>
            , and the pause week{' '}
            <Blank
              label="Pause"
              value={answers.pause ? 'notice' : 'same'}
              onChange={(value) => put({ pause: value === 'notice' })}
              options={[
                ['notice', 'has a notice only'],
                ['same', 'is like the others'],
              ]}
            />
          </>
        )}
        .
      </Sentence>
      <Sentence>
        The course begins{' '}
        <Blank
          label="Beginning"
          value={answers.begins ? 'yes' : 'no'}
          onChange={(value) => put({ begins: value === 'yes' })}
          options={[
            ['yes', 'with a module that says how to begin'],
            ['no', `with the first ${unit}`],
          ]}
        />{' '}
        and ends{' '}
        <Blank
          label="Ending"
          value={answers.ends ? 'yes' : 'no'}
          onChange={(value) => put({ ends: value === 'yes' })}
          options={[
            ['yes', 'with a module that looks back'],
            ['no', `with the last ${unit}`],
          ]}
        />
        .
      </Sentence>
    </div>
  )
}
