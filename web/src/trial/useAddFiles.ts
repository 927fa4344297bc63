import { useSnackbar } from 'notistack'
import { useCallback } from 'react'
import { api, dataOf, sentenceOf, type Card, type MeshFacts, type TrialPart } from '../api/client'
import { putMesh } from '../api/putMesh'
import { newAssembly } from './assembly'
import { partsOf, placesAsDrawn } from './placement'
import type { Arranging } from './useArranging'

/** Puts the parts of files onto the bed of a trial. Several of one file keep their places to each other, and so do files that are dropped
 * together and meet as they were drawn. */
export function useAddFiles(lay: Arranging['lay'], card: Card): (files: Iterable<File>) => void {
  const { enqueueSnackbar } = useSnackbar()
  const { bed } = card.envelope ?? {}
  const { nozzles } = card.head ?? {}
  return useCallback(
    (files) => {
      const addAll = async () => {
        const read: ReadFile[] = []
        for (const file of files) {
          try {
            const found = await putMesh(file)
            read.push({ parts: partsOf(file.name, found, bed), found })
          } catch (failure) {
            enqueueSnackbar(`${file.name}: ${sentenceOf(failure)}`, { variant: 'error', persist: true })
          }
        }
        const together = await belongingTogether(read)
        if (!together) {
          for (const { parts } of read) await lay(parts)
          return
        }
        // bodies of a piece in several materials come one a nozzle, as far as there are nozzles
        const own = nozzles && nozzles.length >= together.length ? nozzles.map(({ id }) => [id]) : []
        await lay(together.map((part, i) => (own[i] ? { ...part, nozzles: own[i] } : part)))
        const names = together.map(({ name }) => name).join(', ')
        enqueueSnackbar(`${names} meet as they were drawn: they keep their place to each other. “take apart” ends that.`, {
          variant: 'info',
        })
      }
      void addAll()
    },
    [bed, nozzles, lay, enqueueSnackbar],
  )
}

interface ReadFile {
  parts: TrialPart[]
  found: MeshFacts[]
}

/** Single bodies of several files as one assembly, where all of them meet; undefined where they are parts of their own. */
async function belongingTogether(files: readonly ReadFile[]): Promise<TrialPart[] | undefined> {
  if (files.length < 2 || files.some(({ parts }) => parts.length !== 1)) return undefined
  const drawn = placesAsDrawn(
    files.flatMap(({ parts }) => parts),
    files.flatMap(({ found }) => found),
  )
  try {
    const { belongTogether } = dataOf(await api.POST('/api/parts/meeting', { body: { parts: drawn } }))
    const assembly = newAssembly()
    return belongTogether ? drawn.map((part) => ({ ...part, assembly })) : undefined
  } catch {
    // what cannot be looked at is laid part by part
    return undefined
  }
}
