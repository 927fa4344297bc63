import { useQuery } from '@tanstack/react-query'
import { useCallback, useEffect, useMemo, useState } from 'react'
import { send } from '../api/send'
import { runOf } from '../api/storedRun'
import { inField } from '../shell/inField'
import { readLayers, type Layer } from './layers'
import { firstLines, layerOf } from './step'

/** The last run of a trial, its layers, and the one that is looked at; Page Up and Page Down go through them. */
export function useRun(id: string) {
  const [wanted, want] = useState<{ layer: number; line?: number }>({ layer: 0 })
  const lookAt = useCallback((layer: number) => want({ layer }), [])
  const { data: run, isSuccess: known } = useQuery(runOf(id))
  const { data: layers } = useQuery({
    queryKey: ['layers', id, run?.at],
    enabled: (run?.result.layers ?? 0) > 0,
    queryFn: async () => readLayers(await (await send(`/api/trials/${id}/run/layers`)).arrayBuffer()),
  })
  const count = layers?.length ?? 0
  const layer = Math.min(wanted.layer, Math.max(0, count - 1))
  const firsts = useMemo(() => firstLines(layers ?? none), [layers])
  const stepTo = useCallback((line: number) => want({ layer: layerOf(firsts, line), line }), [firsts])
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (inField(event) || count === 0) return
      const step = { PageUp: 1, PageDown: -1 }[event.key]
      if (step === undefined) return
      event.preventDefault()
      lookAt(Math.max(0, Math.min(count - 1, layer + step)))
    }
    window.addEventListener('keydown', onKey)
    return () => window.removeEventListener('keydown', onKey)
  }, [count, layer, lookAt])

  // an older version computed it: what it kept of its layers cannot be drawn any more
  const outdated = (run?.result.layers ?? 0) > 0 && layers?.length === 0
  return { run: run ?? undefined, known, outdated, layers: layers ?? none, layer, lookAt, line: wanted.line, stepTo }
}

const none: Layer[] = []
