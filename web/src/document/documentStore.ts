import { createStore, type StoreApi } from 'zustand'
import { Refused, sentenceOf } from '../api/client'
import { Clashed, documents, type Kind, type Kinds, type Stored } from './documents'
import { merged } from './merge'
import { withValue } from './pointer'

/** How the draft stands against the database. */
export type SaveState = 'saved' | 'waiting' | 'saving' | 'refused' | 'unreachable'

export interface SaveStatus {
  savedAt: string
  state: SaveState
  /** Why it is not saved, in a sentence. */
  problem?: string
  /** When somebody else's changes were last taken in. */
  mergedAt?: number
  undo: () => void
  redo: () => void
}

export interface DocumentState<T> extends SaveStatus {
  id: string
  document: T
  /** Refusals by pointer. */
  errors: Record<string, string>
  past: T[]
  future: T[]
  /** Sets a value; edits of one field in quick succession are one step of undo. */
  set: (pointer: string, value: unknown) => void
  /** Changes several things in one step of undo; with a name, quick successors of the same name belong to that step. */
  change: (edit: (document: T) => T, step?: string) => void
}

const wait = 250
const longestWait = 700
const retryAfter = 2000
const oneStep = 1200
const mostSteps = 300

/** A document being edited: every edit is saved as a draft within a second, and survives a server that is away. */
export function createDocumentStore<K extends Kind>(kind: K, stored: Stored<Kinds[K]>): StoreApi<DocumentState<Kinds[K]>> {
  type Doc = Kinds[K]
  const shelf = `mill-card/unsaved/${kind}/${stored.id}`
  let base = stored.document
  let version = stored.version
  let timer: ReturnType<typeof setTimeout> | undefined
  let firstUnsaved = 0
  let saving = false
  let lastEdit = { step: '', at: 0 }

  const store = createStore<DocumentState<Doc>>((_, get) => ({
    id: stored.id,
    document: stored.document,
    savedAt: stored.savedAt,
    state: 'saved',
    errors: {},
    past: [],
    future: [],
    set: (pointer, value) => get().change((document) => withValue(document, pointer, value), pointer),
    change: (make, step = '') => {
      edit(make(get().document), step !== '' && lastEdit.step === step && Date.now() - lastEdit.at < oneStep)
      lastEdit = { step, at: Date.now() }
    },
    undo: () => {
      const { past, future, document } = get()
      const before = past.at(-1)
      if (before) move(before, past.slice(0, -1), [document, ...future])
    },
    redo: () => {
      const { past, future, document } = get()
      const [after, ...rest] = future
      if (after) move(after, [...past, document], rest)
    },
  }))

  function edit(document: Doc, sameStep: boolean) {
    const state = store.getState()
    if (document === state.document) return
    move(document, sameStep ? state.past : [...state.past, state.document].slice(-mostSteps), [])
  }

  function move(document: Doc, past: Doc[], future: Doc[]) {
    lastEdit = { step: '', at: 0 }
    store.setState({ document, past, future, state: 'waiting', errors: {}, problem: undefined })
    firstUnsaved ||= Date.now()
    later(Math.min(wait, Math.max(0, firstUnsaved + longestWait - Date.now())))
  }

  function later(milliseconds: number) {
    clearTimeout(timer)
    timer = setTimeout(() => void save(), milliseconds)
  }

  async function save() {
    if (saving) return later(wait)
    saving = true
    firstUnsaved = 0
    const sent = store.getState().document
    store.setState({ state: 'saving' })
    try {
      take(await documents.save(kind, stored.id, version, sent), sent)
    } catch (failure) {
      await fail(failure)
    } finally {
      saving = false
    }
  }

  function take(answer: Stored<Doc>, sent: Doc) {
    version = answer.version
    base = sent
    localStorage.removeItem(shelf)
    const unchanged = store.getState().document === sent
    store.setState({ savedAt: answer.savedAt, state: unchanged ? 'saved' : 'waiting', problem: undefined })
    if (!unchanged) later(wait)
  }

  async function fail(failure: unknown) {
    if (failure instanceof Clashed) {
      const current = failure.current as Stored<Doc>
      const document = merged(base, store.getState().document, current.document)
      ;[base, version] = [current.document, current.version]
      store.setState({ document, mergedAt: Date.now(), state: 'waiting' })
      later(0)
      return
    }
    if (failure instanceof Refused && failure.refusal.status !== 503) {
      const errors = Object.fromEntries((failure.refusal.errors ?? []).map((error) => [error.pointer, error.message]))
      store.setState({ state: 'refused', problem: failure.message, errors })
      return
    }
    keepAside()
    store.setState({ state: 'unreachable', problem: sentenceOf(failure) })
    later(retryAfter)
  }

  function keepAside() {
    localStorage.setItem(shelf, JSON.stringify({ base, document: store.getState().document }))
  }

  window.addEventListener('pagehide', () => {
    const { state, document } = store.getState()
    if (state === 'saved') return
    keepAside()
    documents.save(kind, stored.id, version, document, true).then(
      (answer) => take(answer, document),
      () => undefined,
    )
  })

  const aside = localStorage.getItem(shelf)
  if (aside) {
    const kept = JSON.parse(aside) as { base: Doc; document: Doc }
    edit(merged(kept.base, kept.document, stored.document), false)
  }
  return store
}
