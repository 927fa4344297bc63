import { createContext, useContext } from 'react'
import { useStore, type StoreApi } from 'zustand'
import { useShallow } from 'zustand/react/shallow'
import type { Card, Filament, MeshFacts, ModeAnswer, PartFit, Recipe, StoredRun, Trial, TrialOrderAnswer } from '../api/client'
import type { DocumentState } from '../open-document/documentStore'
import type { Drawing } from './drawnBy'
import type { Layer } from './layers'
import type { Pointing } from './pointing'
import type { SheetView } from './sheetViews'
import type { Arranging } from './useArranging'
import type { Computing } from './useComputing'
import type { Hands } from './useHands'

/** Parts as solids with the layer that is looked at, or all lines up to it. */
export type InSpace = 'parts' | 'lines'

/** A plane across an axis of a part as it stands. */
export interface CutPlane {
  /** The part, by its place in the list. */
  part: number
  along: 'x' | 'y' | 'z'
  /** From the part's lowest place along it, mm. */
  at: number
}

/** A trial with all it names, as the page shows it. */
export interface OpenTrial {
  /** With the places of its parts, which change with every move of the pointer while one is dragged. */
  trial: DocumentState<Trial>
  id: string
  /** The trial but for its parts. */
  asked: Omit<Trial, 'parts'>
  /** How many parts lie on the bed. */
  laid: number
  set: DocumentState<Trial>['set']
  change: DocumentState<Trial>['change']
  card: DocumentState<Card>
  filament: DocumentState<Filament> | undefined
  recipe: DocumentState<Recipe> | undefined
  /** What is known of each part's mesh as it stands, in the order of the parts. */
  meshes: (MeshFacts | undefined)[]
  /** The verdict on each part, in the order of the parts. */
  fits: PartFit[] | undefined
  /** What the mode of two carriages makes of what lies on the bed. */
  modePlan: ModeAnswer | undefined
  /** What printing one at a time comes to; undefined where parts grow together. */
  order: TrialOrderAnswer | undefined
  /** Which of the head's worst moments is looked at. */
  moment: number | undefined
  lookAtMoment: (moment: number | undefined) => void
  run: StoredRun | undefined
  /** Whether anything is not saved yet. */
  unsaved: boolean
  /** Whether anything was changed since the run. */
  stale: boolean
  /** How its computation stands. */
  computing: Computing
  layers: Layer[]
  /** Which layer is looked at. */
  layer: number
  lookAt: (layer: number) => void
  /** The program line of it that was stepped to; undefined where the whole layer is looked at. */
  line: number | undefined
  stepTo: (line: number) => void
  /** The parts that hands are laid on, and the last of them, whose fields are shown. */
  selected: readonly number[]
  select: (parts: readonly number[]) => void
  chosen: number | undefined
  choose: (part: number | undefined) => void
  /** Which view fills the sheet. */
  sheetView: SheetView
  fillWith: (view: SheetView) => void
  /** What the pointer does on parts in space. */
  pointing: Pointing
  point: (pointing: Pointing) => void
  /** What the pictorial view draws. */
  inSpace: InSpace
  drawInSpace: (what: InSpace) => void
  /** How lines are drawn, and least and greatest of what they are drawn by. */
  drawing: Drawing
  draw: (drawing: Drawing) => void
  span: readonly [number, number] | undefined
  /** Where a part is about to be cut. */
  cutPlane: CutPlane | undefined
  planCut: (plane: CutPlane | undefined) => void
  dragging: (on: boolean) => void
  arranging: Arranging
  hands: Hands
  addFiles: (files: Iterable<File>) => void
}

export const TrialContext = createContext<StoreApi<OpenTrial> | undefined>(undefined)

/** What is named of the open trial; who asks is drawn anew only when one of these has changed. Only below its page. */
export function useTrial<Name extends keyof OpenTrial>(...names: Name[]): Pick<OpenTrial, Name> {
  const store = useContext(TrialContext)
  if (!store) throw new Error('There is no open trial here.')
  return useStore(
    store,
    useShallow((trial) => Object.fromEntries(names.map((name) => [name, trial[name]])) as Pick<OpenTrial, Name>),
  )
}
