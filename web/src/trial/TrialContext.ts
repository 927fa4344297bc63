import { createContext, useContext } from 'react'
import type { Card, Filament, MeshFacts, ModeAnswer, PartFit, Recipe, StoredRun, Trial, TrialOrderAnswer } from '../api/client'
import type { DocumentState } from '../document/documentStore'
import type { Layer } from './layers'

/** A trial with all it names, as the page shows it. */
export interface OpenTrial {
  trial: DocumentState<Trial>
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
  layers: Layer[]
  /** Which layer is looked at. */
  layer: number
  lookAt: (layer: number) => void
  /** Which part is chosen. */
  chosen: number | undefined
  choose: (part: number | undefined) => void
  dragging: (on: boolean) => void
  addFiles: (files: Iterable<File>) => void
}

export const TrialContext = createContext<OpenTrial | undefined>(undefined)

/** The open trial; only below its page. */
export function useTrial(): OpenTrial {
  const trial = useContext(TrialContext)
  if (!trial) throw new Error('There is no open trial here.')
  return trial
}
