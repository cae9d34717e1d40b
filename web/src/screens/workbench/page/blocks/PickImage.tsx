import { imageData, type Template } from '@wickerframe/core'
import { Pick } from '../../../../controls/controls.tsx'
import { imagesBySet } from '../fromLibrary.ts'
import type { PageSources } from '../pageSources.ts'

/** The images there are, and how they go together. */
export interface ImageSources {
  template: { assets: Template['assets'] }
  sources: PageSources
}

/** Chooses one of the template's images, or none; set by set, and what is chosen is shown. */
export const PickImage = ({
  label,
  value,
  none,
  of: { template, sources },
  onDone,
}: {
  label: string
  value: string | undefined
  /** What it says where there is none; without it, there is always one. */
  none?: string
  of: ImageSources
  onDone: (image: string | null) => void
}) => {
  const chosen = template.assets.find(({ key }) => key === value)
  return (
    <span className="flex min-w-0 items-end gap-2">
      {chosen && (
        <img
          src={imageData(chosen)}
          alt=""
          className="h-8 max-w-24 border border-line bg-sheet object-contain"
        />
      )}
      <Pick
        label={label}
        className="min-w-0 [&>select]:max-w-80"
        value={value ?? ''}
        onChange={(event) => onDone(event.target.value || null)}
        options={[
          ...(none === undefined ? [] : [{ value: '', text: none }]),
          ...imagesBySet(template.assets, sources.library?.sets ?? []).flatMap(
            ({ title, images }) =>
              images.map((asset) => ({
                value: asset.key,
                text: `${asset.fileName}: ${asset.alternativeText}`,
                group: title,
              })),
          ),
        ]}
      />
    </span>
  )
}
