import { Pick } from '../../../../controls/controls.tsx'
import type { BlockEditing } from './editing.tsx'

export const BannerEditor = ({ block, template, set }: BlockEditing<'banner'>) => (
  <Pick
    label="Shows"
    value={block.image}
    onChange={(event) => set('image', block.image, event.target.value)}
    options={template.assets.map((asset) => ({
      value: asset.key,
      text: `${asset.fileName}: ${asset.alternativeText}`,
    }))}
  />
)
