import { createStore, type StoreApi } from 'zustand'
import { Refused, sentenceOf } from '../api/client'
import { Clashed, documents, type Kind, type Kinds, type Stored } from './documents'
import { drop, keep, type KeptEntry } from './kept'
import { same, withIds } from './members'
import { merge, valueOn, withOther, type Clash } from './merge'
import { following } from './place'
import { pointerOf, withValue } from './pointer'

/** How the draft stands against the database. */
export type SaveState = 'saved' | 'waiting' | 'saving' | 'refused' | 'unreachable' | 'clash'

export interface SaveStatus {
  savedAt: string
  state: SaveState
  /** Why it is not saved, in a sentence. */
  problem?: string
  /** Whether what is not saved is at least kept in this browser. */
  keptHere?: boolean
  /** When somebody else's changes were last taken in. */
  mergedAt?: number
  undo: () => void
  redo: () => void
}

/** One step of undo: what it was made on, and what it made. Only their difference is taken back, whatever came in between. */
export interface Step<T> {
  before: T
  after: T
}

/** A value that was changed here and elsewhere; the database keeps theirs until somebody chooses. */
export interface OpenClash extends Clash {
  mine: unknown
  theirs: unknown
}

/** A draft from the browser's store that cannot be laid over the document. */
export interface SetAside extends KeptEntry {
  /** Why, in a sentence. */
  why: string
}

export interface DocumentState<T> extends SaveStatus {
  id: string
  document: T
  /** Refusals by pointer. */
  errors: Record<string, string>
  past: Step<T>[]
  future: Step<T>[]
  clashes: OpenClash[]
  setAside: SetAside[]
  /** Sets a value; edits of one field in quick succession are one step of undo. */
  set: (pointer: string, value: unknown) => void
  /** Changes several things in one step of undo; with a name, quick successors of the same name belong to that step. */
  change: (edit: (document: T) => T, step?: string) => void
  /** Settles a clash. */
  choose: (clash: Clash, side: 'mine' | 'theirs') => void
  /** Throws away a draft that could not be laid over. */
  forget: (key: string) => void
}

/** What an opened document begins with, beside what is stored. */
export interface Opening<T> {
  stored: Stored<T>
  /** A draft from the browser's store, laid over what is stored. */
  laid?: { document: T; clashes: Clash[]; keys: string[] }
  setAside?: SetAside[]
}

const wait = 250
const longestWait = 700
const retryAfter = 2000
const oneStep = 1200
const mostSteps = 300

/** A refusal that sending again does not cure; any other failure passes. */
const isFinal = (failure: unknown): failure is Refused => {
  if (!(failure instanceof Refused)) return false
  const status = failure.refusal.status ?? 500
  return status >= 400 && status < 500 && status !== 408 && status !== 429
}

/** A document being edited: every edit is saved as a draft within a second, and survives a server that is away. */
export function createDocumentStore<K extends Kind>(kind: K, opening: Opening<Kinds[K]>): StoreApi<DocumentState<Kinds[K]>> {
  type Doc = Kinds[K]
  const { stored, laid } = opening
  let base = stored.document
  let version = stored.version
  let pending: Clash[] = []
  let laidKeys = laid?.keys ?? []
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
    clashes: [],
    setAside: opening.setAside ?? [],
    set: (pointer, value) => get().change((document) => withValue(document, pointer, value), pointer),
    change: (make, step = '') => {
      edit(make(get().document), step !== '' && lastEdit.step === step && Date.now() - lastEdit.at < oneStep)
      lastEdit = { step, at: Date.now() }
    },
    undo: () => {
      const { past, future, document } = get()
      const step = past.at(-1)
      if (step) move(carried(step.after, step.before, document), past.slice(0, -1), [step, ...future])
    },
    redo: () => {
      const { past, future, document } = get()
      const [step, ...rest] = future
      if (step) move(carried(step.before, step.after, document), [...past, step], rest)
    },
    choose: (clash, side) => {
      const settled = pending.filter((other) => isSame(other, clash) || isSourceOf(other, clash))
      pending = pending.filter((other) => !settled.includes(other))
      if (side === 'theirs')
        edit(
          settled.reduce((at, one) => withOther(at, base, one), get().document),
          false,
        )
      else move(get().document, get().past, get().future)
    },
    forget: (key) => {
      drop(kind, stored.id, [key])
      store.setState({ setAside: get().setAside.filter((entry) => entry.key !== key) })
    },
  }))

  /** What leads from one state to another, done to a document; what somebody else has changed there since stays theirs. */
  function carried(from: Doc, to: Doc, document: Doc): Doc {
    const { document: made, clashes } = merge(from, to, document)
    return clashes.reduce((at, clash) => withOther(at, document, clash), made)
  }

  function edit(made: Doc, sameStep: boolean) {
    const { document: before, past } = store.getState()
    if (made === before) return
    const after = following(before, withIds(made, before))
    const last = sameStep ? past.at(-1) : undefined
    const steps = last ? [...past.slice(0, -1), { before: last.before, after }] : [...past, { before, after }].slice(-mostSteps)
    move(after, steps, [])
  }

  function move(document: Doc, past: Step<Doc>[], future: Step<Doc>[]) {
    lastEdit = { step: '', at: 0 }
    const away = store.getState().state === 'unreachable'
    store.setState({ document, past, future, state: 'waiting', errors: {}, problem: undefined, clashes: open(document) })
    if (away) keepAside()
    firstUnsaved ||= Date.now()
    later(Math.min(wait, Math.max(0, firstUnsaved + longestWait - Date.now())))
  }

  function later(milliseconds: number) {
    clearTimeout(timer)
    timer = setTimeout(() => void save(), milliseconds)
  }

  /** Clashes that still are some: a value that became the same by itself needs no choice. */
  function open(document: Doc): OpenClash[] {
    const seen = pending.map((clash) => ({ ...clash, mine: valueOn(document, clash.path), theirs: valueOn(base, clash.path) }))
    const still = seen.filter((clash) => !same(clash.mine, clash.theirs))
    pending = pending.filter((clash) => still.some((other) => isSame(other, clash)))
    return still.filter((clash) => !still.some((other) => isSourceOf(clash, other)))
  }

  async function save() {
    if (saving) return later(wait)
    const { document } = store.getState()
    const sent = pending.reduce((at, clash) => withOther(at, base, clash), document)
    firstUnsaved = 0
    if (pending.length > 0 && same(sent, base)) {
      keepAside()
      store.setState({ state: 'clash' })
      return
    }
    saving = true
    store.setState({ state: 'saving' })
    try {
      take(await documents.save(kind, stored.id, version, sent), sent, document)
    } catch (failure) {
      fail(failure)
    } finally {
      saving = false
    }
  }

  function take(answer: Stored<Doc>, sent: Doc, document: Doc) {
    version = answer.version
    base = sent
    drop(kind, stored.id, laidKeys)
    laidKeys = []
    const unchanged = store.getState().document === document
    store.setState({ savedAt: answer.savedAt, state: unchanged ? 'saved' : 'waiting', problem: undefined })
    if (unchanged && pending.length > 0) {
      keepAside()
      store.setState({ state: 'clash' })
    } else if (!unchanged) later(wait)
  }

  function fail(failure: unknown) {
    if (failure instanceof Clashed) {
      layOver(failure.current as Stored<Doc>)
      return
    }
    if (isFinal(failure)) {
      const errors = Object.fromEntries((failure.refusal.errors ?? []).map((error) => [error.pointer, error.message]))
      keepAside()
      store.setState({ state: 'refused', problem: failure.message, errors })
      return
    }
    keepAside()
    store.setState({ state: 'unreachable', problem: sentenceOf(failure) })
    later(retryAfter)
  }

  /** Somebody else saved: their changes are taken in, and what was changed on both sides is asked about. */
  function layOver(current: Stored<Doc>) {
    const { document, clashes } = merge(base, store.getState().document, withIds(current.document, base))
    ;[base, version] = [withIds(current.document, base), current.version]
    pending = [...pending.filter((old) => !clashes.some((one) => isSame(one, old))), ...clashes]
    lastEdit = { step: '', at: 0 }
    store.setState({ document, mergedAt: Date.now(), state: 'waiting', clashes: open(document) })
    later(0)
  }

  function keepAside() {
    const kept = keep(kind, stored.id, { base, document: store.getState().document, clashes: pending, at: Date.now() })
    store.setState({ keptHere: kept })
  }

  window.addEventListener('pagehide', () => {
    const { state, document } = store.getState()
    if (state === 'saved') return
    keepAside()
    if (state === 'clash') return
    const sent = pending.reduce((at, clash) => withOther(at, base, clash), document)
    documents.save(kind, stored.id, version, sent, true).then(
      (answer) => take(answer, sent, document),
      () => undefined,
    )
  })

  if (laid) {
    pending = laid.clashes
    edit(laid.document, false)
    store.setState({ mergedAt: Date.now() })
  }
  return store
}

/** Whether a clash is about where the fact of another comes from: they are settled together. */
const isSourceOf = (clash: Clash, fact: Clash) => clash.path[0] === 'sources' && clash.path[1] === pointerOf(fact.path)

const isSame = (a: Clash, b: Clash) => a.order === b.order && same(a.path, b.path)
