import { useCallback, useMemo } from 'react'
import { imageData, storedImage, type Template } from '@wickerframe/core'

/** Data of the template's images, by the name they have in it and the one they have on the platform. */
export const useSourceOf = (assets: Template['assets']) => {
  const sources = useMemo(
    () =>
      new Map(
        assets.flatMap((asset) => {
          const data = imageData(asset)
          return [
            [asset.fileName, data],
            [storedImage(asset).name, data],
          ] as const
        }),
      ),
    [assets],
  )
  return useCallback((name: string) => sources.get(name) ?? null, [sources])
}
