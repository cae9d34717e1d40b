import {
  colourPairs,
  firstHouseStyle,
  houseColourWords,
  type HouseColours,
  type HouseStyle,
  type Template,
} from '@wickerframe/core'
import { Button, Pick } from '../../../controls/controls.tsx'
import { useDraftStore } from '../draftStore.ts'
import { ColourField } from './houseStyle/ColourField.tsx'
import { ColourMeeting } from './houseStyle/ColourMeeting.tsx'
import { StyledPage } from './houseStyle/StyledPage.tsx'

const names = Object.keys(houseColourWords) as (keyof HouseColours)[]

/** How the pages of a template look: its colours, held against one another, and a page in them as students will see it. */
export const HouseStyleView = ({ template }: { template: Template }) => {
  const { edit, mayEdit } = useDraftStore()
  const style = template.houseStyle
  const set = (field: string[], was: unknown, value: unknown) =>
    void edit({
      edit: 'set-field',
      part: null,
      field: ['houseStyle', ...field],
      was: was ?? null,
      value,
    })
  if (!style)
    return (
      <section className="mt-3 max-w-[46rem] bg-sheet p-4">
        <h2 className="text-[18px]">Pages are written without a style</h2>
        <p className="my-2 text-ink-2">
          They look as the learning platform shows plain text. A house style gives them colours,
          headings, notes, cards and a banner with the title on it, in plain HTML that reads as well
          where a platform drops it. It holds for every page of this template, and for the layers
          built on it unless they have one of their own.
        </p>
        {mayEdit && (
          <Button shape="main" onClick={() => set([], null, firstHouseStyle)}>
            Begin a house style
          </Button>
        )}
      </section>
    )
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
    <div className="mt-3 grid items-start gap-6 lg:grid-cols-[minmax(0,26rem)_minmax(0,1fr)]">
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
      <StyledPage template={template} style={style} />
    </div>
  )
}
