import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useEffect } from 'react'
import { useStore, type StoreApi } from 'zustand'
import type { DocumentState } from './documentStore'
import type { Kind, Kinds } from './documents'
import { openDocument } from './openDocument'

/** The open document of an id, the same one for everything on the page. */
export function useDocumentStore<K extends Kind>(kind: K, id: string | null | undefined) {
  return useQuery({
    queryKey: ['open', kind, id],
    enabled: Boolean(id),
    staleTime: Infinity,
    gcTime: Infinity,
    queryFn: () => openDocument(kind, id!),
  })
}

/** The state of an open document; lists of its kind are asked anew once it is saved. */
export function useDocumentState<K extends Kind>(kind: K, store: StoreApi<DocumentState<Kinds[K]>>): DocumentState<Kinds[K]> {
  const state = useStore(store)
  const client = useQueryClient()
  const { savedAt } = state
  useEffect(() => void client.invalidateQueries({ queryKey: ['list', kind] }), [client, kind, savedAt])
  return state
}
