import { useMutation, useQueryClient } from '@tanstack/react-query'
import type { LibraryPut } from '@wickerframe/contract'
import { call } from '../../api/client.ts'

/** Puts something into the library, or corrects it; what shows it is read anew. */
export const usePut = (onSaved: () => void) => {
  const client = useQueryClient()
  return useMutation({
    mutationFn: (put: LibraryPut) => call('putIntoLibrary', { body: put }),
    onSuccess: async () => {
      await client.invalidateQueries({ queryKey: ['library'] })
      await client.invalidateQueries({ queryKey: ['template'] })
      onSaved()
    },
  })
}
