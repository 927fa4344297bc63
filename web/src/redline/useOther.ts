import { useQuery } from '@tanstack/react-query'
import { useMemo } from 'react'
import { answerOf, type Card } from '../api/client'
import { send } from '../api/send'
import { useDropped } from '../exchange/dropped'
import { documents, type Kind } from '../open-document/documents'
import type { SetAside } from '../open-document/documentStore'
import { withIds } from '../open-document/members'
import { named } from '../open-document/redline'
import { cardOfPattern } from '../open-card/patterns'
import { besidePattern } from './besidePattern'

/**
 * A state of a document, or another one, as an address says it: `revision.B`, `document.ID`, `pattern.ID@VERSION`, `file.PATH`,
 * `kept.KEY`, `saved`; nothing for the draft.
 */
export type Against = string

export interface Whose<T> {
  kind: Kind
  id: string
  /** The draft. */
  mine: T
  /** Drafts that this browser kept and that could not be laid over. */
  setAside: readonly SetAside[]
}

export interface Other<T> {
  /** Undefined until it is read. */
  other: T | undefined
  error: Error | undefined
  /** Of a kept draft: what it was made on. */
  base: T | undefined
  /** Whether it is known to hold against the schema; a draft that was kept aside does not. */
  holds: boolean
}

/** The document that is meant; members of its own states keep their identity, those of others are known by their names. */
export function useOther<T extends object>({ kind, id, mine, setAside }: Whose<T>, against: Against): Other<T> {
  const dot = against.indexOf('.')
  const [what, name] = dot < 0 ? [against, ''] : [against.slice(0, dot), against.slice(dot + 1)]
  const held = useDropped((dropped) => (what === 'file' ? dropped.held[name] : undefined))
  const kept = what === 'kept' ? setAside.find(({ key }) => key === name)?.draft : undefined
  const { data, error } = useQuery({
    queryKey: ['held-against', kind, id, against],
    enabled: ['revision', 'document', 'pattern', 'saved'].includes(what),
    staleTime: 0,
    retry: false,
    queryFn: async (): Promise<T> => {
      if (what === 'revision') return answerOf<T>(await send(`/api/${kind}/${id}/revisions/${name}`))
      if (what === 'pattern') {
        const [pattern = '', version] = name.split('@')
        return (await cardOfPattern(pattern, version === undefined ? undefined : Number(version))) as unknown as T
      }
      return (await documents.read(kind, what === 'saved' ? id : name)).document as unknown as T
    },
  })
  const found = (what === 'file' ? held?.document : (kept?.document ?? data)) as T | undefined
  const other = useMemo((): T | undefined => {
    if (against === '') return mine
    if (!found) return undefined
    if (what === 'pattern') return ofPattern(found, mine) as unknown as T
    return what === 'document' || what === 'file' ? named(withIds(found), mine) : withIds(found, mine)
  }, [against, found, what, mine])
  const gone =
    (what === 'file' && !held) || (what === 'kept' && !kept)
      ? new Error('This file is not at hand any more; drop it once more.')
      : undefined
  return { other, error: (error ?? gone) || undefined, base: kept?.base as T | undefined, holds: kept === undefined }
}

/** The members of the pattern that a card comes from keep their identity in it; those of others are known by their names. */
function ofPattern(pattern: Card, mine: Card): Card {
  if (pattern.pattern?.id === mine.pattern?.id) return besidePattern(withIds(pattern, mine), mine)
  return besidePattern({ ...named(withIds(pattern), mine), pattern: mine.pattern }, mine)
}
