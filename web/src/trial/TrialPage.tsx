import { useQueries, useQuery, useQueryClient } from '@tanstack/react-query'
import { useSnackbar } from 'notistack'
import { useCallback, useEffect, useLayoutEffect, useMemo, useState } from 'react'
import { useParams } from 'react-router'
import { createStore, useStore, type StoreApi } from 'zustand'
import { useShallow } from 'zustand/react/shallow'
import { send } from '../api/send'
import { api, dataOf, sentenceOf, type Card, type Filament, type MeshFacts, type Recipe, type Trial, type TrialPart } from '../api/client'
import { inField } from '../shell/Shortcuts'
import { Pane } from '../shell/Pane'
import { Shell } from '../shell/Shell'
import { DraftNotices } from '../open-document/DraftNotices'
import { SaveNote } from '../open-document/SaveNote'
import type { DocumentState } from '../open-document/documentStore'
import { useDocumentState, useDocumentStore } from '../open-document/useDocument'
import { useUndoKeys } from '../open-document/useUndoKeys'
import { bedSize } from '../drawing/outline'
import { Bed } from './Bed'
import { Limits } from './Limits'
import { ModeOfTrial } from './ModeOfTrial'
import { Nozzles } from './Nozzles'
import { PartsList } from './PartsList'
import { PrintOrder } from './PrintOrder'
import { ResultPanel } from './ResultPanel'
import { Settings } from './Settings'
import { WhatIf } from './WhatIf'
import { Zones } from './Zones'
import { readLayers, type Layer } from './layers'
import { TrialContext, type OpenTrial } from './TrialContext'
import { scaleOf } from './placement'
import { putMesh } from '../api/putMesh'
import { useFit } from './useFit'
import { useOrder } from './useOrder'
import './trial.css'

/** A trial: parts on a card's bed, sliced and dry-run. */
export default function TrialPage() {
  const { id } = useParams()
  const { data: trial, error } = useDocumentStore('trials', id)
  const { data: card, error: cardError } = useDocumentStore('cards', trial?.getState().document.card)
  const failure = error ?? cardError
  if (failure)
    return (
      <Shell trail={[{ name: 'Rack', to: '/' }]} title="Trial">
        <p className="nothing" role="alert">
          {sentenceOf(failure)}
        </p>
      </Shell>
    )
  return trial && card ? (
    <OpenTrialPage key={id} trialStore={trial} cardStore={card} />
  ) : (
    <Shell trail={[{ name: 'Rack', to: '/' }]} title="…" children={null} />
  )
}

const nothing = createStore<undefined>(() => undefined)

function OpenTrialPage({
  trialStore,
  cardStore,
}: {
  trialStore: StoreApi<DocumentState<Trial>>
  cardStore: StoreApi<DocumentState<Card>>
}) {
  const trial = useDocumentState('trials', trialStore)
  const card = useDocumentState('cards', cardStore)
  const { data: filamentStore } = useDocumentStore('filaments', trial.document.filament)
  const { data: recipeStore } = useDocumentStore('recipes', trial.document.recipe)
  const filament = useStore<StoreApi<DocumentState<Filament> | undefined>>(filamentStore ?? nothing)
  const recipe = useStore<StoreApi<DocumentState<Recipe> | undefined>>(recipeStore ?? nothing)
  useUndoKeys(trial.undo, trial.redo)

  const [chosen, choose] = useState<number>()
  const [dragged, dragging] = useState(false)
  const [wanted, lookAt] = useState(0)
  // what is dragged may be drawn anew under the pointer and never hear that it is let go
  useEffect(() => {
    if (!dragged) return
    const drop = () => dragging(false)
    const ends = ['pointerup', 'pointercancel', 'blur'] as const
    for (const end of ends) window.addEventListener(end, drop)
    return () => {
      for (const end of ends) window.removeEventListener(end, drop)
    }
  }, [dragged])
  const { enqueueSnackbar } = useSnackbar()

  const parts = useMemo(() => trial.document.parts ?? [], [trial.document.parts])
  const meshes = useMeshes(parts)
  const verdicts = useFit(
    card.document,
    recipe?.document,
    parts,
    trial.document.limits ?? undefined,
    trial.document.mode ?? undefined,
    !dragged,
  )
  const fits = verdicts?.parts
  const order = useOrder(card.document, recipe?.document, trial.document, !dragged)
  const [wantedMoment, lookAtMoment] = useState<number>()
  const moment = wantedMoment !== undefined && order && wantedMoment < order.moments.length ? wantedMoment : undefined
  const { data: run } = useQuery({
    queryKey: ['run', trial.id],
    queryFn: async () => dataOf(await api.GET('/api/trials/{id}/run', { params: { path: { id: trial.id } } })) ?? null,
  })
  const { data: layers } = useQuery({
    queryKey: ['layers', trial.id, run?.at],
    enabled: (run?.result.layers ?? 0) > 0,
    queryFn: async () => readLayers(await (await send(`/api/trials/${trial.id}/run/layers`)).arrayBuffer()),
  })
  const count = layers?.length ?? 0
  const layer = Math.min(wanted, Math.max(0, count - 1))
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
  }, [count, layer])

  const { change } = trial
  const { bed } = card.document.envelope ?? {}
  const addFiles = useCallback(
    async (files: Iterable<File>) => {
      for (const file of files) {
        try {
          const found = await putMesh(file)
          const { width = 0, depth = 0 } = bedSize(bed)
          // parts of one file keep their places to each other, their middle in the middle of the bed
          const [midX, midY] = [0, 1].map((k) => middleOf(found.flatMap((mesh) => mesh.at?.[k] ?? [])))
          change((before) => {
            choose(before.parts?.length ?? 0)
            const stem =
              file.name
                .replace(/\.[^.]*$/, '')
                .replaceAll(/[-_]+/g, ' ')
                .slice(0, 180) || 'part'
            const added = found.map((mesh, i) => ({
              name: mesh.name?.slice(0, 200) || (found.length > 1 ? `${stem} ${i + 1}` : stem),
              file: mesh.hash,
              x: settle(width / 2 + (mesh.at ? mesh.at[0]! - midX! : 0)),
              y: settle(depth / 2 + (mesh.at ? mesh.at[1]! - midY! : 0)),
              turn: 0,
            }))
            return { ...before, parts: [...(before.parts ?? []), ...added] }
          })
        } catch (failure) {
          enqueueSnackbar(`${file.name}: ${sentenceOf(failure)}`, { variant: 'error', persist: true })
        }
      }
    },
    [bed, change, enqueueSnackbar],
  )

  const documents = [trial, card, filament, recipe]
  const unsaved = documents.some((document) => document && document.state !== 'saved')
  const stale = Boolean(run && (unsaved || documents.some((document) => document && document.savedAt > run.at)))
  const asked = useShallow(withoutParts)(trial.document)
  const take = useCallback((files: Iterable<File>) => void addFiles(files), [addFiles])
  const open: OpenTrial = {
    trial,
    id: trial.id,
    asked,
    laid: parts.length,
    set: trial.set,
    change: trial.change,
    card,
    filament,
    recipe,
    meshes,
    fits,
    modePlan: verdicts?.mode ?? undefined,
    order,
    moment,
    lookAtMoment,
    run: run ?? undefined,
    unsaved,
    stale,
    layers: layers ?? none,
    layer,
    lookAt,
    chosen,
    choose,
    dragging,
    addFiles: take,
  }
  const [store] = useState(() => createStore(() => open))
  useLayoutEffect(() => store.setState(open, true))
  return (
    <TrialContext value={store}>
      <Shell
        trail={[
          { name: 'Rack', to: '/' },
          { name: card.document.name || 'card', to: `/cards/${card.id}/trials` },
        ]}
        title={trial.document.name || 'Trial'}
        state={<SaveNote state={trial} />}
        notices={<DraftNotices kind="trials" state={trial} />}
      >
        <main
          className="trial"
          onDragOver={(event) => event.preventDefault()}
          onDrop={(event) => {
            event.preventDefault()
            take([...event.dataTransfer.files])
          }}
        >
          {bedPane}
          <div className="trial-side">
            <label className="quiet trial-name">
              trial
              <input
                className="plain-field"
                value={trial.document.name ?? ''}
                maxLength={120}
                onChange={(event) => trial.set('/name', event.target.value || undefined)}
              />
            </label>
            {sidePanes}
          </div>
        </main>
      </Shell>
    </TrialContext>
  )
}

/** The panes, made once: a page that is drawn anew does not draw them, they look at what they need themselves. */
const bedPane = (
  <Pane name="bed">
    <Bed />
  </Pane>
)
const sidePanes = [
  ['parts', <PartsList />],
  ['zones', <Zones />],
  ['mode', <ModeOfTrial />],
  ['nozzles', <Nozzles />],
  ['print order', <PrintOrder />],
  ['limits', <Limits />],
  ['settings', <Settings />],
  ['result', <ResultPanel />],
  ['what if', <WhatIf />],
].map(([name, pane]) => (
  <Pane key={String(name)} name={String(name)}>
    {pane}
  </Pane>
))
const none: Layer[] = []

function withoutParts(trial: Trial): Omit<Trial, 'parts'> {
  const others = { ...trial }
  delete others.parts
  return others
}

const middleOf = (values: number[]) => (values.length === 0 ? 0 : (Math.min(...values) + Math.max(...values)) / 2)
const settle = (value: number) => Math.round(value * 1000) / 1000

/** The meshes of parts as they stand, by part. */
function useMeshes(parts: TrialPart[]): (MeshFacts | undefined)[] {
  const client = useQueryClient()
  // until the mesh as it stands now is there, the newest of the same file is drawn, so that a held handle stays in hand
  const newest = (file: string) =>
    client
      .getQueryCache()
      .findAll({ queryKey: ['mesh', file], predicate: (query) => query.state.data !== undefined })
      .sort((a, b) => a.state.dataUpdatedAt - b.state.dataUpdatedAt)
      .at(-1)?.state.data as MeshFacts | undefined
  return useQueries({
    queries: parts.map((part) => {
      const { file, tilt } = part
      const scale = scaleOf(part)
      const query = { scaleX: scale.x, scaleY: scale.y, scaleZ: scale.z, tiltX: tilt?.x ?? 0, tiltY: tilt?.y ?? 0 }
      return {
        queryKey: ['mesh', file, query],
        staleTime: Infinity,
        placeholderData: () => newest(file),
        queryFn: async () => dataOf(await api.GET('/api/meshes/{hash}', { params: { path: { hash: file }, query } })),
      }
    }),
    combine: (answers) => answers.map(({ data }) => data),
  })
}
