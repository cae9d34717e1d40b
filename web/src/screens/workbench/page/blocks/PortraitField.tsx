import type { Template } from '@wickerframe/core'
import { PickImage } from './PickImage.tsx'

/** Whose picture stands there until they put their own in its place; none, or one of the template's images. */
export const PortraitField = ({
  portrait,
  template,
  set,
}: {
  portrait: string | undefined
  template: Template
  set: (field: string, was: unknown, value: unknown) => void
}) => (
  <PickImage
    label="Portrait, until they put their own in its place"
    none="none"
    value={portrait}
    template={template}
    onDone={(now) => set('portrait', portrait, now)}
  />
)
