import { useRef, useState } from 'react'
import { send } from '../api/send'
import { saidBy, sentenceOf, type WhatIfMessage, type WhatIfVariant } from '../api/client'
import { messages } from '../api/stream'

/** How a comparison stands. */
export interface Comparison {
  running: boolean
  /** How many variants there will be. */
  of: number
  now: WhatIfMessage['now']
  variants: WhatIfVariant[]
  problem?: string
  /** Compares: a setting, an outcome or a part's sides. */
  ask: (question: Record<string, string>) => void
  cancel: () => void
}

/** Slices a trial with one thing changed, variant by variant, as they come; can be cancelled. */
export function useWhatIf(id: string): Comparison {
  const abort = useRef<AbortController>(undefined)
  const [state, setState] = useState<Omit<Comparison, 'ask' | 'cancel'>>({ running: false, of: 0, now: undefined, variants: [] })
  const ask = async (question: Record<string, string>) => {
    abort.current?.abort()
    const controller = (abort.current = new AbortController())
    setState({ running: true, of: 0, now: undefined, variants: [] })
    try {
      const answer = await send(`/api/trials/${id}/what-if?${new URLSearchParams(question).toString()}`, { signal: controller.signal })
      for await (const message of messages<WhatIfMessage>(answer)) {
        const { of, now, variant, problem } = message
        const said = saidBy(problem)
        setState((before) => ({
          ...before,
          of,
          now: now ?? before.now,
          problem: said ?? before.problem,
          variants: variant ? [...before.variants, variant] : before.variants,
        }))
      }
      setState((before) => ({ ...before, running: false }))
    } catch (failure) {
      setState((before) => ({ ...before, running: false, problem: controller.signal.aborted ? before.problem : sentenceOf(failure) }))
    }
  }
  return {
    ...state,
    ask: (question) => void ask(question),
    cancel: () => {
      abort.current?.abort()
      setState((before) => ({ ...before, running: false }))
    },
  }
}
