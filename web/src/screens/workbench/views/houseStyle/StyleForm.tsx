import {
  colourPairs,
  houseColourWords,
  type HouseColours,
  type HouseStyle,
} from '@wickerframe/core'
import { Button, Pick } from '../../../../controls/controls.tsx'
import { ColourField } from './ColourField.tsx'
import { ColourMeeting } from './ColourMeeting.tsx'

const names = Object.keys(houseColourWords) as (keyof HouseColours)[]

/** The colours of a house style, how they meet, and its shapes. @param set a field within the style; none: the style as a whole */
export const StyleForm = ({
  style,
  mayEdit,
  set,
}: {
  style: HouseStyle
  mayEdit: boolean
  set: (field: string[], was: unknown, value: unknown) => void
}) => {
  const setColour = (name: keyof HouseColours, colour: string) =>
    set(['colours', name], style.colours[name], colour)
  const picked = <Field extends 'headings' | 'rules' | 'corners'>(
    field: Field,
    label: string,
    options: readonly { value: HouseStyle[Field]; text: string }[],
  ) => (
    <Pick
      label={label}
      value={style[field]}
      onChange={(event) => set([field], style[field], event.target.value)}
      options={options}
    />
  )
  const pairs = colourPairs(style.colours)
  const failing = pairs.filter(({ passes }) => !passes).length
  return (
    <fieldset disabled={!mayEdit} className="grid gap-4 bg-sheet p-4">
      <h2 className="text-[18px]">Colours</h2>
      <div className="grid grid-cols-[minmax(0,1fr)_auto_auto] items-center gap-x-3 gap-y-1">
        {names.map((name) => (
          <ColourField
            key={name}
            label={houseColourWords[name]}
            value={style.colours[name]}
            onDone={(colour) => setColour(name, colour)}
          />
        ))}
      </div>
      <div>
        <h3 className="font-semibold">
          {failing === 0
            ? 'All that meets can be read'
            : failing === 1
              ? 'One pair cannot be read well'
              : `${failing} pairs cannot be read well`}
        </h3>
        <ul className="grid gap-1">
          {pairs.map((pair) => (
            <ColourMeeting
              key={`${pair.front} ${pair.ground}`}
              pair={pair}
              colours={style.colours}
              mayEdit={mayEdit}
              onTake={setColour}
            />
          ))}
        </ul>
      </div>
      <h2 className="text-[18px]">Shapes</h2>
      <div className="flex flex-wrap gap-3">
        {picked('headings', 'Headings', [
          { value: 'bar', text: 'a bar beside them' },
          { value: 'line', text: 'a line below them' },
          { value: 'plain', text: 'plain' },
        ])}
        {picked('rules', 'Lines across', [
          { value: 'thin', text: 'thin' },
          { value: 'double', text: 'double' },
          { value: 'dashed', text: 'dashed' },
        ])}
        {picked('corners', 'Corners', [
          { value: 'square', text: 'square' },
          { value: 'round', text: 'round' },
        ])}
      </div>
      {mayEdit && (
        <Button shape="word" className="justify-self-start" onClick={() => set([], style, null)}>
          write pages without a style
        </Button>
      )}
    </fieldset>
  )
}
