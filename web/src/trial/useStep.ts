import { useMemo } from 'react'
import type { RunLine } from '../api/client'
import { useLines } from '../api/useLines'
import type { HeadPlace } from './HeadAtMoment'
import { firstLines, laidOf, pathAt, tipAfter } from './step'
import { useTrial } from './TrialContext'

/** Lines that are asked for on both sides of the one that is looked at. */
const near = 60

/** A move within a layer. */
export interface Step {
  /** The program line that is looked at, counted from 1. */
  at: number
  /** Whether it was stepped to; else it is where the layer begins. */
  chosen: boolean
  lines: ReadonlyMap<number, RunLine>
  /** Where the head is then; undefined where no line is chosen, or where it is is not known yet. */
  head: HeadPlace | undefined
  /** x, y, x, y, … of what is laid of the line of plastic under way. */
  laid: number[]
}

/** The program at the moment that is looked at; undefined where there is none. */
export function useStep(): Step | undefined {
  const { id, run, line, layers, layer } = useTrial('id', 'run', 'line', 'layers', 'layer')
  const firsts = useMemo(() => firstLines(layers), [layers])
  const shown = layers[layer]
  const at = line ?? firsts[layer] ?? 1
  const path = useMemo(() => pathAt(shown, at), [shown, at])
  // a line of plastic is drawn from where it begins, however long it is
  const from = Math.max(1, Math.min(at - near, line === undefined ? at : (path?.first ?? at)))
  const lines = useLines(id, shown && run, from, Math.min(run?.result.lines ?? 1, at + near))
  return useMemo(() => {
    if (!shown) return undefined
    const tip = line === undefined ? undefined : tipAfter(lines, line)
    return {
      at,
      chosen: line !== undefined,
      lines,
      head: tip && { x: tip[0], y: tip[1], z: tip[2], nozzle: path?.nozzle ?? 0 },
      laid: line === undefined ? [] : laidOf(path, lines, line),
    }
  }, [shown, at, line, lines, path])
}
