import { PickImage, type ImageSources } from './PickImage.tsx'

/** Whose picture stands there until they put their own in its place; none, or one of the template's images. */
export const PortraitField = ({
  portrait,
  of,
  set,
}: {
  portrait: string | undefined
  of: ImageSources
  set: (field: string, was: unknown, value: unknown) => void
}) => (
  <PickImage
    label="Portrait, until they put their own in its place"
    none="none"
    value={portrait}
    of={of}
    onDone={(now) => set('portrait', portrait, now)}
  />
)
