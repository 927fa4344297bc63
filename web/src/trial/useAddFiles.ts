import { useSnackbar } from 'notistack'
import { useCallback } from 'react'
import { sentenceOf, type Card, type Trial } from '../api/client'
import { putMesh } from '../api/putMesh'
import { partsOf } from './placement'

/** Puts the parts of files onto the bed of a trial, in its middle, and chooses the first of them. */
export function useAddFiles(
  change: (by: (before: Trial) => Trial) => void,
  card: Card,
  choose: (index: number) => void,
): (files: Iterable<File>) => void {
  const { enqueueSnackbar } = useSnackbar()
  const { bed } = card.envelope ?? {}
  const addFiles = useCallback(
    async (files: Iterable<File>) => {
      for (const file of files) {
        try {
          const found = await putMesh(file)
          change((before) => {
            choose(before.parts?.length ?? 0)
            return { ...before, parts: [...(before.parts ?? []), ...partsOf(file.name, found, bed)] }
          })
        } catch (failure) {
          enqueueSnackbar(`${file.name}: ${sentenceOf(failure)}`, { variant: 'error', persist: true })
        }
      }
    },
    [bed, change, choose, enqueueSnackbar],
  )
  return useCallback((files) => void addFiles(files), [addFiles])
}
