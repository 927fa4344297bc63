import { newId } from '../units/newId'
import type { Path } from './members'
import type { Kind } from './documents'

/** A draft that could not be saved, kept in the browser. */
export interface KeptDraft {
  /** The state of the database that it was made on. */
  base: unknown
  document: unknown
  /** Values that were changed here and elsewhere, and not decided yet. */
  clashes?: { path: Path; order?: boolean }[]
  at?: number
}

/** One entry of the browser's store; the draft is missing where it cannot be read. */
export interface KeptEntry {
  key: string
  text: string
  draft?: KeptDraft
}

// a page of its own writes to a place of its own: two tabs with one document do not wipe out each other's
const tab = newId()
const shelfOf = (kind: Kind, id: string) => `mill-card/unsaved/${kind}/${id}`

/** Keeps a draft in the browser; false where its store is full or closed. */
export function keep(kind: Kind, id: string, draft: KeptDraft): boolean {
  try {
    localStorage.setItem(`${shelfOf(kind, id)}/${tab}`, JSON.stringify(draft))
    return true
  } catch {
    return false
  }
}

/** What is kept of a document, the oldest first; nothing where the browser's store cannot be read. */
export function keptOf(kind: Kind, id: string): KeptEntry[] {
  try {
    const keys = Object.keys(localStorage).filter((key) => key === shelfOf(kind, id) || key.startsWith(`${shelfOf(kind, id)}/`))
    return keys.map((key) => entryOf(key, localStorage.getItem(key) ?? '')).sort((a, b) => (a.draft?.at ?? 0) - (b.draft?.at ?? 0))
  } catch {
    return []
  }
}

/** Drops what this page keeps of a document, and entries that were laid over it. */
export function drop(kind: Kind, id: string, keys: readonly string[] = []) {
  try {
    for (const key of [`${shelfOf(kind, id)}/${tab}`, ...keys]) localStorage.removeItem(key)
  } catch {
    // a store that cannot be written holds nothing that could be dropped
  }
}

function entryOf(key: string, text: string): KeptEntry {
  try {
    const draft = JSON.parse(text) as Partial<KeptDraft> | null
    const whole = typeof draft?.base === 'object' && draft.base !== null && typeof draft.document === 'object' && draft.document !== null
    return whole ? { key, text, draft: draft as KeptDraft } : { key, text }
  } catch {
    return { key, text }
  }
}
