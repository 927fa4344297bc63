import { useSnackbar } from 'notistack'
import { useLayoutEffect, useState } from 'react'
import { createStore, type StoreApi } from 'zustand'
import { api, dataOf, sentenceOf, type CutQuestion, type Trial, type TrialPart } from '../api/client'
import type { DocumentState } from '../open-document/documentStore'
import { newAssembly } from './assembly'
import { isHeld, tiltedAs, type Held } from './held'
import { stanceOf } from './placement'
import { painted, type Paint } from './pointing'
import { fellowsOf, moved, withFellows } from './together'
import type { Arranging } from './useArranging'

/** What can be done to parts that are selected. Nothing but `remove` and `cut` takes a part away, and undo brings it back. */
export interface Hands {
  remove: (indices: readonly number[]) => void
  move: (indices: readonly number[], dx: number, dy: number) => void
  /** Keeps copies at hand, for this trial and others. */
  copy: (indices: readonly number[]) => void
  paste: () => Promise<void>
  selectAll: () => void
  /** Left for right. */
  mirror: (indices: readonly number[]) => void
  /** Keeps parts in their places to each other from now on. */
  putTogether: (indices: readonly number[]) => void
  takeApart: (index: number) => void
  /** The bodies of a part as parts of their own. */
  split: (index: number) => Promise<void>
  /** Parts as one. */
  join: (indices: readonly number[]) => Promise<void>
  /** Sets a part on one of its faces. */
  stand: (index: number, face: number) => Promise<void>
  /** Tilts a part, and all that belong to it as one piece; down onto the bed where that is asked for. */
  tilt: (index: number, tilt: Tilted, onBed?: boolean) => void
  /** Marks faces of a part; the strokes of one number are one step of undo. */
  paint: (index: number, faces: readonly number[], mark: Paint, stroke: number) => void
  /** Cuts a part; says why where it cannot be. */
  cut: (index: number, how: Omit<CutQuestion, 'part'>) => Promise<string | undefined>
}

type Tilted = Required<Pick<NonNullable<TrialPart['tilt']>, 'x' | 'y'>>

interface Asked {
  trialStore: StoreApi<DocumentState<Trial>>
  select: (indices: readonly number[]) => void
  arranging: Arranging
}

/** The same actions as long as the page is open; they look at the newest state. */
export function useHands(asked: Asked): Hands {
  const { enqueueSnackbar } = useSnackbar()
  const [newest] = useState(() => createStore(() => asked))
  useLayoutEffect(() => newest.setState(asked, true))
  const [actions] = useState(() => actionsOf(newest.getState, (sentence) => enqueueSnackbar(sentence, { variant: 'warning' })))
  return actions
}

function actionsOf(asked: () => Asked, say: (sentence: string) => void): Hands {
  const trial = () => asked().trialStore.getState()
  const parts = () => trial().document.parts ?? []
  const change = (to: (parts: TrialPart[]) => TrialPart[], step?: string) =>
    trial().change((before) => ({ ...before, parts: to(before.parts ?? []) }), step)
  const saying = (work: () => Promise<void>) =>
    work().catch((failure: unknown) => {
      say(sentenceOf(failure))
    })
  /** Puts others in the place of a part, if it is still there. */
  const replace = (old: Held, made: readonly TrialPart[]) =>
    change((now) => now.flatMap((part, i) => (isHeld(old)(part, i) ? made : [part])))

  /** How an assembly is to stand; what is asked while the server works it out waits, the newest alone. */
  let wanted: { leads: Held; tilt: Tilted; onBed: boolean } | undefined
  const tiltTogether = async () => {
    try {
      for (let asked = wanted; asked; asked = wanted === asked ? undefined : wanted) {
        const { leads, tilt, onBed } = asked
        const index = parts().findIndex(isHeld(leads))
        const fellows = index < 0 ? [] : fellowsOf(parts(), index).map((i): Held => ({ part: parts()[i]!, index: i }))
        if (fellows.length === 0) continue
        const body = { parts: fellows.map(({ part }) => part), leads: fellows.findIndex((one) => one.index === index), tilt, onBed }
        const { parts: made } = dataOf(await api.POST('/api/parts/tilt', { body }))
        change((now) => now.map((part, i) => tiltedAs(part, fellows, made, i)), `tilt ${index}`)
      }
    } finally {
      wanted = undefined
    }
  }

  const hands: Hands = {
    remove: (indices) => {
      if (indices.length === 0) return
      asked().select([])
      change((now) => now.filter((_, i) => !indices.includes(i)))
    },
    move: (indices, dx, dy) => change((now) => moved(now, indices, dx, dy), `move ${indices.join(' ')}`),
    copy: (indices) => {
      const all = withFellows(parts(), indices).map((i) => parts()[i]!)
      if (all.length > 0) localStorage.setItem(copiedKey, JSON.stringify(all))
    },
    paste: async () => {
      const copied = readCopied()
      if (copied.length > 0) await asked().arranging.lay(copied)
    },
    selectAll: () => asked().select(parts().map((_, i) => i)),
    mirror: (indices) => {
      const all = withFellows(parts(), indices)
      const [from, to] = [Math.min(...all.map((i) => parts()[i]!.x ?? 0)), Math.max(...all.map((i) => parts()[i]!.x ?? 0))]
      change((now) => now.map((part, i) => (all.includes(i) ? imageOf(part, from + to) : part)))
    },
    putTogether: (indices) => {
      const word = newAssembly()
      change((now) => now.map((part, i) => (indices.includes(i) ? { ...part, assembly: word } : part)))
    },
    takeApart: (index) => {
      const word = parts()[index]?.assembly
      change((now) => now.map((part) => (part.assembly === word ? { ...part, assembly: undefined } : part)))
    },
    split: (index) =>
      saying(async () => {
        const part = parts()[index]
        if (!part) return
        const { parts: bodies } = dataOf(await api.POST('/api/parts/split', { body: { parts: [part] } }))
        if (bodies.length === 1) say(`${part.name} is one body.`)
        else replace({ part, index }, bodies)
      }),
    join: (indices) =>
      saying(async () => {
        const [first, ...others] = withFellows(parts(), indices).map((i): Held => ({ part: parts()[i]!, index: i }))
        if (!first) return
        const body = { parts: [first, ...others].map(({ part }) => part) }
        const { parts: made } = dataOf(await api.POST('/api/parts/join', { body }))
        asked().select([])
        const isGone = (part: TrialPart, i: number) => others.some((other) => isHeld(other)(part, i))
        change((now) => now.flatMap((part, i) => (isHeld(first)(part, i) ? made : [part].filter(() => !isGone(part, i)))))
      }),
    stand: (index, face) =>
      saying(async () => {
        const part = parts()[index]
        if (!part) return
        const { scaleX, scaleY, scaleZ, mirrored } = stanceOf(part)
        const query = { face, scaleX, scaleY, scaleZ, mirrored }
        const tilt = dataOf(await api.GET('/api/meshes/{hash}/standing', { params: { path: { hash: part.file }, query } }))
        hands.tilt(parts().findIndex(isHeld({ part, index })), { x: tilt.x ?? 0, y: tilt.y ?? 0 }, true)
      }),
    tilt: (index, tilt, onBed = false) => {
      const part = parts()[index]
      if (!part) return
      if (fellowsOf(parts(), index).length === 1)
        change((now) => now.map((one, i) => (i === index ? { ...one, tilt, ...(onBed && { lift: 0 }) } : one)), `tilt ${index}`)
      else {
        const asking = wanted !== undefined
        wanted = { leads: { part, index }, tilt, onBed }
        if (!asking) void saying(tiltTogether)
      }
    },
    paint: (index, faces, mark, stroke) =>
      change((now) => now.map((part, i) => (i === index ? painted(part, new Set(faces), mark) : part)), `stroke ${stroke}`),
    cut: async (index, how) => {
      const part = parts()[index]
      if (!part) return undefined
      try {
        const { parts: made } = dataOf(await api.POST('/api/parts/cut', { body: { ...how, part } }))
        // the lower half stays where the part stood, the rest goes to free ground
        replace({ part, index }, made.slice(0, 1))
        await asked().arranging.lay(made.slice(1))
        return undefined
      } catch (failure) {
        return sentenceOf(failure)
      }
    },
  }
  return hands
}

/** The mirror image of a part across an upright line between two others: its turn runs the other way round. */
function imageOf(part: TrialPart, twiceMiddle: number): TrialPart {
  const { x = 1, y = 1, z = 1, mirrored: was = false } = part.scale ?? {}
  const { x: tiltX = 0, y: tiltY = 0 } = part.tilt ?? {}
  return {
    ...part,
    x: twiceMiddle - (part.x ?? 0),
    turn: (360 - (part.turn ?? 0)) % 360,
    scale: { x, y, z, mirrored: !was },
    tilt: part.tilt ? { x: tiltX, y: -tiltY } : undefined,
  }
}

const copiedKey = 'mill-card/copied-parts'

/** What was copied last, in this trial or another; nothing where it is not what was put there. */
function readCopied(): TrialPart[] {
  try {
    const copied: unknown = JSON.parse(localStorage.getItem(copiedKey) ?? '[]')
    const isPart = (part: unknown) => typeof part === 'object' && part !== null && 'file' in part && 'name' in part
    return Array.isArray(copied) ? (copied.filter(isPart) as TrialPart[]) : []
  } catch {
    return []
  }
}
