import { useEffect, useMemo, useRef, useState } from 'react'
import type { StoredRun } from '../api/client'
import { useSlice, type Slicing } from './useSlice'

/** How the computation of a trial stands. */
export interface Computing extends Slicing {
  /** Seconds from the last change to the result; undefined where nothing was changed since the page was opened. */
  age: number | undefined
  /** Whether it waits for *Slice*. */
  byHand: boolean
  setByHand: (byHand: boolean) => void
}

interface Asked {
  id: string
  laid: number
  /** The last run; null where there is none, undefined as long as that is not known. */
  run: StoredRun | null | undefined
  unsaved: boolean
  stale: boolean
  /** Whether a part is known not to fit: that would be refused. */
  misfits: boolean
  /** What is saved, as one text: another state is another text. */
  asOf: string
}

const wait = 300

/**
 * Computes a trial in the background a moment after the last change. A newer change ends what is under way; a state that was
 * tried is not tried again unasked. A program that was brought as a file is not replaced.
 */
export function useComputing({ id, laid, run, unsaved, stale, misfits, asOf }: Asked): Computing {
  const { start, cancel, step, share, refusal } = useSlice(id)
  const [byHand, setByHand] = useState(() => localStorage.getItem(byHandKey) === 'true')
  const [age, setAge] = useState<number>()
  const changedAt = useRef<number>(undefined)
  const tried = useRef<string>(undefined)
  const [triedAs, setTriedAs] = useState<string>()
  const actions = useRef({ start: () => {}, cancel: () => {} })
  useEffect(() => {
    actions.current = {
      start: () => {
        tried.current = asOf
        setTriedAs(asOf)
        start()
      },
      cancel,
    }
  })

  useEffect(() => {
    if (!unsaved) return
    changedAt.current = performance.now()
    // what is ended here was not tried
    tried.current = undefined
    actions.current.cancel()
  }, [unsaved, asOf])

  const wanted = !byHand && run !== undefined && !unsaved && laid > 0 && !misfits && (!run || (stale && run.result.origin !== 'file'))
  useEffect(() => {
    if (!wanted || tried.current === asOf) return
    const timer = setTimeout(() => actions.current.start(), wait)
    return () => clearTimeout(timer)
  }, [wanted, asOf])

  // what was refused was the trial as it was then
  const refused = triedAs === asOf && !unsaved ? refusal : undefined
  const at = run?.at
  useEffect(() => {
    if (changedAt.current === undefined || !at) return
    setAge((performance.now() - changedAt.current) / 1000)
    changedAt.current = undefined
  }, [at])

  return useMemo(
    () => ({
      step,
      share,
      refusal: refused,
      start: () => actions.current.start(),
      cancel: () => actions.current.cancel(),
      age,
      byHand,
      setByHand: (on) => {
        localStorage.setItem(byHandKey, String(on))
        setByHand(on)
      },
    }),
    [step, share, refused, age, byHand],
  )
}

const byHandKey = 'mill-card/compute-by-hand'
