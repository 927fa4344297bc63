import { useQueryClient } from '@tanstack/react-query'
import { useRef, useState } from 'react'
import { sentenceOf, type Refusal, type SliceMessage } from '../api/client'
import { messages } from '../api/stream'

/** How a slicing stands. */
export interface Slicing {
  /** What is being done; undefined where nothing is. */
  step?: string
  share?: number
  refusal?: Partial<Refusal>
  start: () => void
  cancel: () => void
}

/** Slices a trial, tells how far it has come, and can be cancelled. */
export function useSlice(id: string): Slicing {
  const client = useQueryClient()
  const abort = useRef<AbortController>(undefined)
  const [state, setState] = useState<Omit<Slicing, 'start' | 'cancel'>>({})

  const start = async () => {
    const controller = (abort.current = new AbortController())
    setState({ step: 'starting', share: 0 })
    try {
      const answer = await fetch(`/api/trials/${id}/slice`, { method: 'POST', signal: controller.signal })
      for await (const message of messages<SliceMessage>(answer)) {
        const { progress, run, refusal } = message
        if (progress)
          setState({ step: `${progress.step}, ${progress.done} of ${progress.of}`, share: progress.of ? progress.done / progress.of : 0 })
        if (refusal) setState({ refusal })
        if (run) {
          client.setQueryData(['run', id], run)
          setState({})
        }
      }
    } catch (failure) {
      setState(controller.signal.aborted ? {} : { refusal: { detail: sentenceOf(failure) } })
    }
  }

  return { ...state, start: () => void start(), cancel: () => abort.current?.abort() }
}
