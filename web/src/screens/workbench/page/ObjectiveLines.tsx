import { freshKey, type Objective } from '@wickerframe/core'
import { Button } from '../../../controls/controls.tsx'
import { TextLine, Tick } from '../../../controls/typed.tsx'

/** Objectives with what each serves. */
export const ObjectiveLines = ({
  objectives,
  wider,
  prefix,
  onDone,
}: {
  objectives: readonly Objective[]
  wider: readonly { key: string; text: string }[]
  prefix: string
  onDone: (objectives: Objective[]) => void
}) => {
  const change = (key: string, more: Partial<Objective>) =>
    onDone(objectives.map((one) => (one.key === key ? { ...one, ...more } : one)))
  return (
    <ol className="grid list-decimal gap-2 pl-5">
      {objectives.map((one, i) => (
        <li key={one.key}>
          <TextLine
            label={`Objective ${i + 1}`}
            value={one.text}
            onDone={(text) => text.trim() !== '' && change(one.key, { text: text.trim() })}
          />
          <span className="flex flex-wrap gap-x-3 text-[12.5px] text-ink-2">
            serves {wider.length === 0 ? 'nothing yet; add course outcomes first' : ''}
            {wider
              .filter((other) => other.key !== one.key)
              .map((other) => (
                <Tick
                  key={other.key}
                  label={other.text}
                  checked={one.serves.includes(other.key)}
                  onChange={(checked) =>
                    change(one.key, {
                      serves: checked
                        ? [...one.serves, other.key]
                        : one.serves.filter((key) => key !== other.key),
                    })
                  }
                />
              ))}
          </span>
          {objectives.length > 1 && (
            <Button
              shape="word"
              onClick={() => onDone(objectives.filter((other) => other.key !== one.key))}
            >
              take out objective {i + 1}
            </Button>
          )}
        </li>
      ))}
      <li className="list-none">
        <Button
          shape="word"
          onClick={() =>
            onDone([
              ...objectives,
              {
                key: freshKey(prefix, new Set(objectives.map((one) => one.key))),
                text: 'objective, beginning with a verb you could test',
                serves: [],
              },
            ])
          }
        >
          add an objective
        </Button>
      </li>
    </ol>
  )
}
