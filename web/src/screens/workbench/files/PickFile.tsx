import type { Template, TemplateFile } from '@wickerframe/core'
import { Pick } from '../../../controls/controls.tsx'

/** Where the files of the library that the template does not hold stand among those it does. */
const inLibrary = 'library:'

/** One of the files that the template holds, or of those that the library offers besides; nothing where there are none. */
export const PickFile = ({
  label,
  none,
  template,
  offered,
  value,
  without = [],
  onChoose,
}: {
  label: string
  /** What stands there while none is chosen. */
  none: string
  template: Template
  /** Those of the library that the template does not hold. */
  offered: readonly TemplateFile[]
  /** Key of the one that is chosen. */
  value: string | null
  /** Keys of those that are not offered. */
  without?: readonly string[]
  onChoose: (file: TemplateFile | null) => void
}) => {
  const held = template.files.filter(({ key }) => !without.includes(key))
  if (held.length === 0 && offered.length === 0) return null
  return (
    <Pick
      label={label}
      className="[&>select]:max-w-80"
      value={value ?? ''}
      onChange={({ target: { value: chosen } }) =>
        onChoose(
          chosen.startsWith(inLibrary)
            ? (offered.find(({ key }) => key === chosen.slice(inLibrary.length)) ?? null)
            : (held.find(({ key }) => key === chosen) ?? null),
        )
      }
      options={[
        { value: '', text: none },
        ...held.map(({ key, title }) => ({ value: key, text: title })),
        ...offered.map(({ key, title }) => ({
          value: `${inLibrary}${key}`,
          text: `${title} (from the library)`,
        })),
      ]}
    />
  )
}
