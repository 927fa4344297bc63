import { Refused } from '../api/client'
import { createDocumentStore, type SetAside } from './documentStore'
import { documents, type Kind, type Kinds } from './documents'
import { keptOf, type KeptEntry } from './kept'
import { isObject, withIds } from './members'
import { merge, type Clash } from './merge'

/**
 * Reads a document and lays over it what the browser kept of it. A kept draft that does not hold is set aside: it never reaches the page.
 */
export async function openDocument<K extends Kind>(kind: K, id: string) {
  type Doc = Kinds[K]
  const read = await documents.read(kind, id)
  const stored = { ...read, document: withIds(read.document) }
  let document = stored.document
  let clashes: Clash[] = []
  const keys: string[] = []
  const setAside: SetAside[] = []
  for (const entry of keptOf(kind, id)) {
    const base = withIds(entry.draft?.base as Doc, stored.document)
    const laid = isFor(stored.document, entry) ? merge(base, withIds(entry.draft!.document as Doc, base), document) : undefined
    const why = laid ? await refusalOf(kind, laid.document) : 'It was cut short, or is not a draft of this document.'
    if (!laid || why !== undefined) {
      setAside.push({ ...entry, why: why ?? '' })
      continue
    }
    document = laid.document
    clashes = [...clashes, ...laid.clashes, ...(entry.draft!.clashes ?? [])]
    keys.push(entry.key)
  }
  return createDocumentStore(kind, { stored, setAside, ...(keys.length > 0 ? { laid: { document, clashes, keys } } : {}) })
}

const isFor = (stored: unknown, { draft }: KeptEntry) =>
  isObject(stored) && isObject(draft?.base) && isObject(draft.document) && draft.document.schema === stored.schema

/** Why a draft does not hold; undefined where it does. */
async function refusalOf<K extends Kind>(kind: K, document: Kinds[K]): Promise<string | undefined> {
  try {
    await documents.holds(kind, document)
    return undefined
  } catch (failure) {
    if (failure instanceof Refused && failure.refusal.status === 422) return failure.message
    throw failure
  }
}
