import { useEffect, useState } from 'react'
import { useStore } from 'zustand'
import { createStore } from 'zustand/vanilla'
import type { Kind, Kinds } from '../open-document/documents'

/** A file with the path under which it was dropped. */
export interface DroppedFile {
  path: string
  file: File
}

/** What a file leads to on another page. */
export type Lead = 'mesh' | 'program' | 'settings-report' | 'macros'

/** A document out of a file, to be held against others. */
export interface HeldDocument<K extends Kind = Kind> {
  kind: K
  /** Where it lay. */
  path: string
  document: Kinds[K]
}

interface Dropped {
  files: DroppedFile[]
  /** Goes up with every drop. */
  drops: number
  /** Handed on to the page that asks for it next. */
  handed: { lead: Lead; file: File } | undefined
  /** By keys that stand in addresses; gone when the page is loaded anew. */
  held: Record<string, HeldDocument>
}

/** What was dropped on any page and is not taken yet; it never leaves this tab but to be looked at. */
export const droppedStore = createStore<Dropped>(() => ({ files: [], drops: 0, handed: undefined, held: {} }))

export const useDropped = <T>(part: (dropped: Dropped) => T): T => useStore(droppedStore, part)

/** Files to look at, in place of those before. */
export const drop = (files: DroppedFile[]) => droppedStore.setState(({ drops }) => ({ files, drops: drops + 1 }))

/** Hands a file on to the page that is opened next. */
export const handOn = (lead: Lead, file: File) => droppedStore.setState({ handed: { lead, file } })

/** The file that was handed on to this page, when it is opened. */
export function useHanded(lead: Lead): File | undefined {
  const [file] = useState(() => {
    const { handed } = droppedStore.getState()
    return handed?.lead === lead ? handed.file : undefined
  })
  useEffect(() => {
    if (file && droppedStore.getState().handed?.file === file) droppedStore.setState({ handed: undefined })
  }, [file])
  return file
}

/** Keeps a document at hand under a key. */
export function hold(document: HeldDocument): string {
  const key = document.path
  droppedStore.setState(({ held }) => ({ held: { ...held, [key]: document } }))
  return key
}
