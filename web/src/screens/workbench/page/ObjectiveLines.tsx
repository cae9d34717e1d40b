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
    onDone(
      objectives.map((objective) =>
        objective.key === key ? { ...objective, ...more } : objective,
      ),
    )
  return (
    <ol className="grid list-decimal gap-2 pl-5">
      {objectives.map((objective, i) => (
        <li key={objective.key}>
          <TextLine
            label={`Objective ${i + 1}`}
            value={objective.text}
            onDone={(text) => text.trim() !== '' && change(objective.key, { text: text.trim() })}
          />
          <span className="flex flex-wrap gap-x-3 text-[12.5px] text-ink-2">
            serves {wider.length === 0 ? 'nothing yet; add course outcomes first' : ''}
            {wider
              .filter((other) => other.key !== objective.key)
              .map((other) => (
                <Tick
                  key={other.key}
                  label={other.text}
                  checked={objective.serves.includes(other.key)}
                  onChange={(checked) =>
                    change(objective.key, {
                      serves: checked
                        ? [...objective.serves, other.key]
                        : objective.serves.filter((key) => key !== other.key),
                    })
                  }
                />
              ))}
          </span>
          {objectives.length > 1 && (
            <Button
              shape="word"
              onClick={() => onDone(objectives.filter((other) => other.key !== objective.key))}
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
                key: freshKey(prefix, new Set(objectives.map((objective) => objective.key))),
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
