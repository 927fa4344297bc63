import { useSnackbar } from 'notistack'
import { useCallback } from 'react'
import { sentenceOf, type Card } from '../api/client'
import { putMesh } from '../api/putMesh'
import { partsOf } from './placement'
import type { Arranging } from './useArranging'

/** Puts the parts of files onto the bed of a trial: one on free ground, several of one file with their places to each other. */
export function useAddFiles(lay: Arranging['lay'], card: Card): (files: Iterable<File>) => void {
  const { enqueueSnackbar } = useSnackbar()
  const { bed } = card.envelope ?? {}
  return useCallback(
    (files) => {
      const addAll = async () => {
        for (const file of files) {
          try {
            const found = await putMesh(file)
            await lay(partsOf(file.name, found, bed), found.length > 1)
          } catch (failure) {
            enqueueSnackbar(`${file.name}: ${sentenceOf(failure)}`, { variant: 'error', persist: true })
          }
        }
      }
      void addAll()
    },
    [bed, lay, enqueueSnackbar],
  )
}
