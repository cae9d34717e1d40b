import type { Block, Template } from '@wickerframe/core'
import { TextLine, TextLines } from '../../../../controls/typed.tsx'
import type { PageSources } from '../pageSources.ts'
import { RichText } from '../RichText.tsx'

export type BlockOf<Kind extends Block['kind']> = Extract<Block, { kind: Kind }>

/** What the editor of a kind of block is given. */
export interface BlockEditing<Kind extends Block['kind']> {
  block: BlockOf<Kind>
  template: Template
  sources: PageSources
  /** Level of the last heading above the block on its page. */
  headingBefore: number
  disabled: boolean
  /** Sets a field; null takes it away. */
  set: (field: string, was: unknown, value: unknown) => void
}

type Field = Pick<BlockEditing<Block['kind']>, 'sources' | 'headingBefore' | 'disabled' | 'set'>

/** A field that holds HTML. */
export const HtmlField = ({
  field,
  label,
  html,
  spots = false,
  of: { sources, headingBefore, disabled, set },
}: {
  field: string
  label: string
  html: string
  /** Whether the instructor may be asked for something within a sentence. */
  spots?: boolean
  of: Field
}) => (
  <RichText
    label={label}
    html={html}
    sources={sources}
    headingBefore={headingBefore}
    disabled={disabled}
    spots={spots}
    onPage
    onDone={(now) => set(field, html, now)}
  />
)

/** A field that holds HTML, its label above it. */
export const WrittenField = (props: Parameters<typeof HtmlField>[0]) => (
  <div>
    <p className="text-ink-2">{props.label}</p>
    <HtmlField {...props} />
  </div>
)

/** A field of one line that may be empty. */
export const LineField = ({
  field,
  label,
  value,
  hint,
  set,
}: {
  field: string
  label: string
  value: string | undefined
  hint?: string
  set: Field['set']
}) => (
  <TextLine
    label={label}
    value={value ?? ''}
    {...(hint ? { hint } : {})}
    onDone={(now) => set(field, value, now || null)}
  />
)

/** A field of several lines of plain text; empty ones are none. */
export const LinesField = ({
  label,
  lines,
  onDone,
}: {
  label: string
  lines: readonly string[]
  onDone: (lines: string[]) => void
}) => (
  <TextLines
    label={label}
    value={lines.join('\n')}
    onDone={(text) =>
      onDone(
        text
          .split('\n')
          .map((line) => line.trim())
          .filter((line) => line !== ''),
      )
    }
  />
)

/** The heading that a block brings along. */
export const HeadingField = ({ label, set }: { label: string; set: Field['set'] }) => (
  <TextLine label="Heading above it" value={label} onDone={(now) => set('label', label, now)} />
)
