import { useState } from 'react'
import type { Setting } from '../open-document/description'
import type { DocumentState } from '../open-document/documentStore'
import { same } from '../open-document/members'
import { valueAt } from '../open-document/pointer'

const kept = 5

/** The settings of a document that were changed while the page was open, the newest first. */
export function useTouched(state: Pick<DocumentState<object>, 'id' | 'document'> | undefined, settings: readonly Setting[]): Setting[] {
  const [seen, see] = useState({ id: state?.id, document: state?.document, touched: [] as Setting[] })
  if (seen.document === state?.document) return seen.touched
  const changed =
    seen.id === state?.id ? settings.filter(({ pointer }) => !same(valueAt(seen.document, pointer), valueAt(state?.document, pointer))) : []
  const before = seen.id === state?.id ? seen.touched : []
  const touched = [...new Set([...changed, ...before])].slice(0, kept)
  see({ id: state?.id, document: state?.document, touched })
  return touched
}
