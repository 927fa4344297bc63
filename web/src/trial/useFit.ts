import { useEffect, useRef, useState } from 'react'
import { api, type Card, type ModeAnswer, type ModeUse, type PartFit, type Recipe, type TrialLimits, type TrialPart } from '../api/client'

interface Question {
  card: Card
  recipe: Recipe | undefined
  parts: TrialPart[]
  limits: TrialLimits | undefined
  mode: ModeUse | undefined
  cure: boolean
}

/** The verdicts, and what the mode makes of what lies on the bed. */
export interface Verdicts {
  parts: PartFit[]
  mode?: ModeAnswer | null
}

/**
 * The verdict on parts as they move. One question is under way at a time, and the next one asked is always the newest,
 * so that the verdict keeps up with the pointer. Undefined while the card is not complete enough to tell.
 */
export function useFit(
  card: Card | undefined,
  recipe: Recipe | undefined,
  parts: TrialPart[],
  limits: TrialLimits | undefined,
  mode: ModeUse | undefined,
  cure: boolean,
): Verdicts | undefined {
  const [fits, setFits] = useState<Verdicts>()
  const waiting = useRef<Question>(undefined)
  const busy = useRef(false)

  useEffect(() => {
    if (!card) return
    waiting.current = { card, recipe, parts, limits, mode, cure }
    if (busy.current) return
    busy.current = true
    void (async () => {
      for (let next = waiting.current; next; next = waiting.current) {
        waiting.current = undefined
        const { data } = await api
          .POST('/api/trials/fit', { body: { ...next, card: { ...next.card, routines: undefined, sources: undefined } } })
          .catch(() => ({ data: undefined }))
        setFits(data)
      }
      busy.current = false
    })()
  }, [card, recipe, parts, limits, mode, cure])
  return fits
}
