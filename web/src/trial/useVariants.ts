import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useEffect, useState } from 'react'
import { api, dataOf, sentenceOf, type VariantAnswer } from '../api/client'
import { inField } from '../shell/inField'
import { useTrial } from './TrialContext'

/** The kept states of a trial, and what can be done with them. */
export interface KeptVariants {
  kept: VariantAnswer[]
  /** Whether what is on the page can be kept: it is saved and computed. */
  ready: boolean
  keep: () => void
  take: (letter: string) => void
  problem: string | undefined
}

/** Keeps states of the trial with what comes of them, and takes them back; `k` keeps. */
export function useVariants(): KeptVariants {
  const { id, run, stale, unsaved, change, recipe } = useTrial('id', 'run', 'stale', 'unsaved', 'change', 'recipe')
  const client = useQueryClient()
  const [problem, setProblem] = useState<string>()
  const path = { params: { path: { id } } }
  const { data: kept = [] } = useQuery({
    // what differs is told against what is saved now
    queryKey: ['variants', id, run?.at],
    queryFn: async () => dataOf(await api.GET('/api/trials/{id}/variants', path)),
  })
  const ready = Boolean(run) && !stale && !unsaved && run?.result.origin !== 'file'
  const trying = async (work: () => Promise<void>) => {
    try {
      await work()
      setProblem(undefined)
    } catch (failure) {
      setProblem(sentenceOf(failure))
    }
  }
  const keep = () =>
    void trying(async () => {
      client.setQueryData(['variants', id, run?.at], dataOf(await api.POST('/api/trials/{id}/variants', path)))
    })
  const take = (letter: string) =>
    void trying(async () => {
      const state = dataOf(await api.GET('/api/trials/{id}/variants/{letter}', { params: { path: { id, letter } } }))
      change((now) => ({ ...state.trial, name: now.name }))
      recipe?.change((now) => ({ ...state.recipe, name: now.name }))
    })
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (event.key === 'k' && !inField(event) && !event.ctrlKey && !event.metaKey && !event.altKey && ready) keep()
    }
    window.addEventListener('keydown', onKey)
    return () => window.removeEventListener('keydown', onKey)
  })
  return { kept, ready, keep, take, problem }
}
