import { useMemo } from 'react'
import { everyPart, homePageKey, type Template } from '@wickerframe/core'
import { useLibrary } from '../../api/queries.ts'
import { useDraftStore } from './draftStore.ts'
import { offeredTo } from './page/fromLibrary.ts'
import type { PageSources } from './page/pageSources.ts'

/** What pages of a draft can link to and show, and how an image comes into it. */
export const usePageSources = (draft: Template): PageSources => {
  const library = useLibrary()
  const edit = useDraftStore((store) => store.edit)
  const { houseTexts, assets, files } = draft
  // The same as long as neither the library nor what is held of it changes.
  const offered = useMemo(
    () => offeredTo({ houseTexts, assets, files }, library.data),
    [houseTexts, assets, files, library.data],
  )
  return useMemo(() => {
    return {
      parts: [
        { key: homePageKey, name: 'Home page' },
        ...everyPart(draft).map(({ key, name }) => ({ key, name })),
      ],
      files: draft.files,
      assets: draft.assets,
      library: offered,
      onAsset: (asset) =>
        void edit({
          edit: 'set-field',
          part: null,
          field: ['assets', asset.key],
          was: null,
          value: asset,
        }),
      onUndescribed: (pictures) =>
        useDraftStore.setState({
          problem: `${pictures === 1 ? 'A picture was' : `${pictures} pictures were`} left out, as nobody said what ${pictures === 1 ? 'it shows' : 'they show'}. Put ${pictures === 1 ? 'it' : 'them'} in again, and say it.`,
        }),
    }
  }, [draft, offered, edit])
}
