import { useQueryClient } from '@tanstack/react-query'
import { useRef, useState } from 'react'
import { send } from '../api/send'
import { sentenceOf, type Progress, type Refusal, type SliceMessage } from '../api/client'
import { messages } from '../api/stream'
import { takeRun } from '../api/storedRun'

/** How a slicing stands. */
export interface Slicing {
  /** What is being done; undefined where nothing is. */
  step?: string
  share?: number
  refusal?: Partial<Refusal>
  start: () => void
  cancel: () => void
}

/** What is being done, in words. */
const stepOf = ({ step, done, of }: Progress) =>
  step === 'queue' ? `waiting for its turn, place ${done} of ${of}` : `${step}, ${done} of ${of}`

/** Slices a trial, tells how far it has come, and can be cancelled. */
export function useSlice(id: string): Slicing {
  const client = useQueryClient()
  const abort = useRef<AbortController>(undefined)
  const [state, setState] = useState<Omit<Slicing, 'start' | 'cancel'>>({})

  const start = async () => {
    const controller = (abort.current = new AbortController())
    // what comes late of one that was ended says nothing of the next
    const show = (next: typeof state) => {
      if (abort.current === controller) setState(next)
    }
    show({ step: 'starting', share: 0 })
    try {
      const answer = await send(`/api/trials/${id}/slice`, { method: 'POST', signal: controller.signal })
      for await (const message of messages<SliceMessage>(answer)) {
        const { progress, run, refusal } = message
        if (controller.signal.aborted) break
        if (progress) show({ step: stepOf(progress), share: progress.step === 'queue' || !progress.of ? 0 : progress.done / progress.of })
        if (refusal) show({ refusal })
        if (run) {
          await takeRun(client, id, run)
          show({})
        }
      }
    } catch (failure) {
      if (!controller.signal.aborted) show({ refusal: { detail: sentenceOf(failure) } })
    }
    if (controller.signal.aborted) show({})
  }

  return { ...state, start: () => void start(), cancel: () => abort.current?.abort() }
}
