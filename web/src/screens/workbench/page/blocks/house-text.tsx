import { Pick } from '../../../../controls/controls.tsx'
import type { BlockEditing } from './editing.tsx'

export const HouseTextEditor = ({ block, template, set }: BlockEditing<'house-text'>) => (
  <div className="flex flex-wrap gap-3">
    <Pick
      label="Shows"
      value={block.houseText}
      onChange={(event) => set('houseText', block.houseText, event.target.value)}
      options={template.houseTexts.map((text) => ({ value: text.key, text: text.title }))}
    />
    <Pick
      label="Put in"
      value={block.mode}
      onChange={(event) => set('mode', block.mode, event.target.value)}
      options={[
        { value: 'copied', text: 'copied: current after its rollout' },
        { value: 'linked', text: 'linked: current at once' },
      ]}
    />
  </div>
)
