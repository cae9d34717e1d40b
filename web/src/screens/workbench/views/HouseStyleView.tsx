import { canonicalJson, firstHouseStyle, type Template } from '@wickerframe/core'
import { Button } from '../../../controls/controls.tsx'
import { useDraftStore } from '../draftStore.ts'
import { StyledPage } from './houseStyle/StyledPage.tsx'
import { StyleForm } from './houseStyle/StyleForm.tsx'

/** How the pages of a template look: its colours, held against one another, and a page in them as students will see it. */
export const HouseStyleView = ({ template }: { template: Template }) => {
  const { edit, mayEdit, upper } = useDraftStore()
  const style = template.houseStyle
  const above = upper?.houseStyle
  const isFromAbove = above !== undefined && canonicalJson(above) === canonicalJson(style ?? null)
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
  return (
    <div className="mt-3 grid items-start gap-6 lg:grid-cols-[minmax(0,26rem)_minmax(0,1fr)]">
      <div className="grid gap-2">
        {above && (
          <p className="border-l-2 border-tide pl-3 text-ink-2">
            {isFromAbove ? (
              'It is the one of the layer above. What is changed here is this layer’s own.'
            ) : (
              <>
                This layer has a house style of its own.{' '}
                {mayEdit && (
                  <Button shape="word" onClick={() => set([], style, above)}>
                    take the one of the layer above
                  </Button>
                )}
              </>
            )}
          </p>
        )}
        <StyleForm style={style} mayEdit={mayEdit} set={set} />
      </div>
      <StyledPage template={template} style={style} />
    </div>
  )
}
