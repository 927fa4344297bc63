import { useAddFiles } from './useAddFiles'
import { useDragging } from './useDragging'
import { useMeshes } from './useMeshes'
import { useArranging } from './useArranging'
import { useComputing } from './useComputing'
import { useHandKeys } from './useHandKeys'
import { useHands } from './useHands'
import { useRun } from './useRun'
import { useCallback, useEffect, useLayoutEffect, useMemo, useState } from 'react'
import { useParams } from 'react-router'
import { createStore, useStore, type StoreApi } from 'zustand'
import { useShallow } from 'zustand/react/shallow'
import { sentenceOf, type Card, type Filament, type Recipe, type Trial, type TrialPart } from '../api/client'
import { drawnWith } from '../pictorial/drawnWith'
import { Pane } from '../shell/Pane'
import { Shell } from '../shell/Shell'
import { Waiting } from '../shell/Waiting'
import { DraftNotices } from '../open-document/DraftNotices'
import { SaveNote } from '../open-document/SaveNote'
import type { DocumentState } from '../open-document/documentStore'
import { useDocumentState, useDocumentStore } from '../open-document/useDocument'
import { useUndoKeys } from '../open-document/useUndoKeys'
import { useHanded } from '../exchange/dropped'
import { AboutFields } from '../open-document/AboutFields'
import { OnPaper } from '../exchange/OnPaper'
import { SaveAsFile } from '../exchange/SaveAsFile'
import { isMeshName } from '../exchange/meshNames'
import { Sheet } from './Sheet'
import type { Pointing } from './pointing'
import type { SheetView } from './sheetViews'
import { drawnByKind, spanOf } from './drawnBy'
import { HeightBands } from './HeightBands'
import { Limits } from './Limits'
import { ModeOfTrial } from './ModeOfTrial'
import { Nozzles } from './Nozzles'
import { PartsList } from './PartsList'
import { PrintOrder } from './PrintOrder'
import { PrintStrip } from './PrintStrip'
import { ResultPanel } from './ResultPanel'
import { Settings } from './Settings'
import { VerdictStrip } from './VerdictStrip'
import { OnCards } from './OnCards'
import { Stops } from './Stops'
import { Variants } from './Variants'
import { Zones } from './Zones'
import { TrialContext, type CutPlane, type InSpace, type OpenTrial } from './TrialContext'
import { fetchSpace } from './fetchSpace'
import { useFit } from './useFit'
import { useOrder } from './useOrder'
import { useSolids } from './useSolids'
import './trial.css'

/** A trial: parts on a card's bed, sliced and dry-run. */
export default function TrialPage() {
  const { id } = useParams()
  const { data: trial, error } = useDocumentStore('trials', id)
  const { data: card, error: cardError } = useDocumentStore('cards', trial?.getState().document.card)
  useEarlySpace(trial?.getState().document.parts)
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
    <Waiting trail={[{ name: 'Rack', to: '/' }]} title="Trial" waitsFor={[trial ? 'its card' : 'the trial']} />
  )
}

/** What the pictorial view wants is asked for while card and recipe are still on their way. */
function useEarlySpace(parts: TrialPart[] = []) {
  const draws = drawnWith() !== undefined
  useSolids(draws ? parts : [])
  useEffect(() => {
    if (draws) void fetchSpace()
  }, [draws])
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
  const { data: secondStore } = useDocumentStore('filaments', trial.document.secondFilament)
  const { data: recipeStore } = useDocumentStore('recipes', trial.document.recipe)
  const filament = useStore<StoreApi<DocumentState<Filament> | undefined>>(filamentStore ?? nothing)
  const second = useStore<StoreApi<DocumentState<Filament> | undefined>>(secondStore ?? nothing)
  const recipe = useStore<StoreApi<DocumentState<Recipe> | undefined>>(recipeStore ?? nothing)
  useUndoKeys(trial.undo, trial.redo)

  const [selected, select] = useState<readonly number[]>([])
  const chosen = selected.at(-1)
  const choose = useCallback((index: number | undefined) => select(index === undefined ? [] : [index]), [])
  const [sheetView, fillWith] = useState<SheetView>('all')
  const [pointing, point] = useState<Pointing>({ does: 'choose' })
  const [cutPlane, planCut] = useState<CutPlane>()
  const [inSpace, drawInSpace] = useState<InSpace>('parts')
  const [dragged, dragging] = useDragging()

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
  const { run, known, outdated, layers, layer, lookAt, line, stepTo } = useRun(trial.id)
  const [drawing, draw] = useState(drawnByKind)
  const span = useMemo(() => (drawing.by === 'kind' ? undefined : spanOf(layers, drawing.by)), [layers, drawing.by])
  const arranging = useArranging({ trialStore, card: card.document, recipe: recipe?.document, select })
  const hands = useHands({ trialStore, select, arranging })
  const take = useAddFiles(arranging.lay, card.document)
  const handed = useHanded('mesh')
  useEffect(() => {
    if (handed) take([handed])
    // once: the bed may change while the file is read
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [handed])

  const documents = [trial, card, filament, second, recipe]
  const unsaved = documents.some((document) => document && document.state !== 'saved')
  const stale = Boolean(run && (outdated || unsaved || documents.some((document) => document && document.savedAt > run.at)))
  const computing = useComputing({
    id: trial.id,
    laid: parts.length,
    run: known ? (run ?? null) : undefined,
    unsaved,
    stale,
    misfits: Boolean(fits?.some((fit) => fit.fits === false)),
    asOf: documents.map((document) => document?.savedAt).join(' '),
  })
  const asked = useShallow(withoutParts)(trial.document)
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
    run,
    unsaved,
    stale,
    computing,
    layers,
    layer,
    lookAt,
    line,
    stepTo,
    selected,
    select,
    chosen,
    choose,
    hands,
    sheetView,
    fillWith,
    pointing,
    point,
    inSpace,
    drawInSpace,
    drawing,
    draw,
    span,
    cutPlane,
    planCut,
    dragging,
    arranging,
    addFiles: take,
  }
  useHandKeys(hands, selected)
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
            const files = [...event.dataTransfer.files]
            // what is no part is looked at like anything that is dropped elsewhere
            if (!files.every(({ name }) => isMeshName(name))) return
            event.preventDefault()
            take(files)
          }}
        >
          {verdictPane}
          {sheetPane}
          {stripPane}
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
            <div className="trial-about">
              <AboutFields document={trial.document} set={trial.set} />
              <SaveAsFile what={trial.document.name || 'the trial'} kind="trials" id={trial.id} />{' '}
              <OnPaper of={`/api/trials/${trial.id}`} />
            </div>
            {sidePanes}
          </div>
        </main>
      </Shell>
    </TrialContext>
  )
}

/** The panes, made once: a page that is drawn anew does not draw them, they look at what they need themselves. */
const verdictPane = (
  <Pane name="verdict">
    <VerdictStrip />
  </Pane>
)
const sheetPane = (
  <Pane name="sheet">
    <Sheet />
  </Pane>
)
const stripPane = (
  <Pane name="print along time">
    <PrintStrip />
  </Pane>
)
const sidePanes = [
  ['parts', <PartsList />],
  ['zones', <Zones />],
  ['layer heights', <HeightBands />],
  ['stops', <Stops />],
  ['mode', <ModeOfTrial />],
  ['nozzles', <Nozzles />],
  ['print order', <PrintOrder />],
  ['limits', <Limits />],
  ['settings', <Settings />],
  ['result', <ResultPanel />],
  ['variants', <Variants />],
  ['on which card', <OnCards />],
].map(([name, pane]) => (
  <Pane key={String(name)} name={String(name)}>
    {pane}
  </Pane>
))

function withoutParts(trial: Trial): Omit<Trial, 'parts'> {
  const others = { ...trial }
  delete others.parts
  return others
}
