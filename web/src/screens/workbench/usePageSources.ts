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
  return useMemo(() => {
    return {
      parts: [
        { key: homePageKey, name: 'Home page' },
        ...everyPart(draft).map(({ key, name }) => ({ key, name })),
      ],
      files: draft.files,
      assets: draft.assets,
      library: offeredTo(draft, library.data),
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
  }, [draft, library.data, edit])
}
