import { Menu } from '../../controls/menu.tsx'
import { keyActs, type Press } from '../../shell/findOrDo/keys.ts'

const rowActs = keyActs.filter(({ ofRow }) => ofRow)

/** What can be done with the row one stands in, for whoever has no keys at hand: the same as the keys do, which stand beside it. */
export const RowMenu = ({
  mayEdit,
  onPress,
}: {
  mayEdit: boolean
  /** A key as if it were pressed on the name of the row. */
  onPress: (press: Press) => void
}) => (
  // What is pressed in the menu is not pressed in the sheet, though it stands in it.
  <span
    className="ml-auto shrink-0"
    onMouseDown={(event) => event.stopPropagation()}
    onDoubleClick={(event) => event.stopPropagation()}
    onKeyDown={(event) => event.stopPropagation()}
  >
    <Menu
      label="row"
      named="row: what can be done with it"
      shape="word"
      className="bg-sheet px-1"
      ofRow
      groups={[
        {
          items: rowActs
            .filter(({ edits }) => mayEdit || !edits)
            .map(({ keys, does }) => ({ value: keys, text: does, keys })),
        },
      ]}
      onPick={(keys) => {
        const press = rowActs.find((act) => act.keys === keys)?.press
        if (press) onPress(press)
      }}
    />
  </span>
)
