import { houseColourWords, type ColourPair, type HouseColours } from '@wickerframe/core'
import { Button } from '../../../../controls/controls.tsx'

/** Cut, not rounded: 4.499 does not meet 4.5. */
const ratioWords = (ratio: number): string => `${(Math.floor(ratio * 10) / 10).toFixed(1)} to 1`

/** Two colours that meet: a sample of them, whether it can be read, and what would do instead of either. */
export const ColourMeeting = ({
  pair: { words, front, ground, ratio, needed, passes, instead },
  colours,
  mayEdit,
  onTake,
}: {
  pair: ColourPair
  colours: HouseColours
  mayEdit: boolean
  onTake: (name: keyof HouseColours, colour: string) => void
}) => (
  <li className="flex gap-3">
    <span
      aria-hidden
      className="flex h-7 w-12 shrink-0 items-center justify-center border border-line font-serif"
      style={{ background: colours[ground], color: colours[front] }}
    >
      {needed === 3 ? <span className="h-1 w-8" style={{ background: colours[front] }} /> : 'Aa'}
    </span>
    <span>
      <span className="inline-block first-letter:uppercase">{words}</span>:{' '}
      <span className="tabular-nums">{ratioWords(ratio)}</span>
      {!passes && (
        <span className="block border-l-4 border-rust pl-2">
          {needed} to 1 is needed.{' '}
          {mayEdit &&
            ([front, ground] as const).map((name) => {
              const colour = name === front ? instead.front : instead.ground
              return (
                colour !== null && (
                  <Button
                    key={name}
                    shape="word"
                    className="mr-3 text-left"
                    onClick={() => onTake(name, colour)}
                  >
                    take {colour} for {houseColourWords[name]}
                  </Button>
                )
              )
            })}
        </span>
      )}
    </span>
  </li>
)
