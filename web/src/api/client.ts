import createClient from 'openapi-fetch'
import { newId } from '../units/newId'
import type { components, paths } from './schema'

/** Says which page asks: pages take turns where work waits in a queue. */
export const asker = { Asker: newId() }

export const api = createClient<paths>({ headers: asker })

type Schemas = components['schemas']
export type Axis = Schemas['Axis']
export type Beam = Schemas['Beam']
export type Bed = Schemas['Bed']
export type BinEntry = Schemas['BinEntry']
export type Body = Schemas['Body']
export type CutQuestion = Schemas['CutQuestion']
/** What a refusal within a stream says. */
export const saidBy = (problem: OnCardMessage['problem']): string | undefined =>
  problem?.errors?.[0]?.message ?? problem?.detail ?? undefined
export type OnCardMessage = Schemas['OnCardMessage']
export type TrialOnCard = Schemas['TrialOnCard']
export type VariantAnswer = Schemas['VariantAnswer']
export type FaceMark = Schemas['FaceMark']
export type Card = Schemas['Card']
export type CeilingBy = Schemas['ExtrudedLineAnswer']['by']
export type CopyAnswer = Schemas['CopyAnswer']
export type DocumentHead = Schemas['DocumentHead']
export type Filament = Schemas['Filament']
export type Fan = Schemas['Fan']
export type Found = Schemas['Found']
export type Finding = Schemas['Finding']
export type NozzleSpent = Schemas['NozzleSpent']
export type CardSummary = Schemas['CardSummary']
export type GaugeAnswer = Schemas['GaugeAnswer']
export type GaugeResult = Schemas['GaugeResult']
export type HeaterAnswer = Schemas['HeaterAnswer']
export type KeepOut = Schemas['KeepOut']
export type Match = Schemas['Match']
export type ArrangeAnswer = Schemas['ArrangeAnswer']
export type LayerTimes = Schemas['LayerTimes']
export type MeshFacts = Schemas['MeshFacts']
export type RecipeHere = Schemas['RecipeHere']
export type LayerHere = Schemas['LayerHere']
export type Reason = Schemas['Reason']
export type LineAnswer = Schemas['ExtrudedLineAnswer']
export type LadderAnswer = Schemas['LadderAnswer']
export type LineJob = Schemas['LineJob']
export type LineStatus = Schemas['LineStatus']
export type PlasticUsed = Schemas['PlasticUsed']
export type PrintRecord = Schemas['PrintRecord']
export type Revision = Schemas['RevisionAnswer']
export type ModeAnswer = Schemas['ModeAnswer']
export type ModeKind = Schemas['ModeKind']
export type ModeUse = Schemas['ModeUse']
export type Moment = Schemas['Moment']
export type MotionAnswer = Schemas['MotionAnswer']
export type Nozzle = Schemas['Nozzle']
export type NozzleChange = Schemas['NozzleChange']
export type Outcome = Schemas['Outcome']
export type Outline = Schemas['Outline']
export type PartFit = Schemas['PartFit']
export type PatternHead = Schemas['PatternHead']
export type PatternSource = Schemas['PatternSource']
export type SourceReview = Schemas['SourceReview']
export type Position = Schemas['Position']
export type ReachAnswer = Schemas['ReachAnswer']
export type ReportedFact = Schemas['ReportedFact']
export type PreviewLine = Schemas['PreviewLine']
export type PreviewMoment = Schemas['PreviewMoment']
export type Edit = Schemas['Edit']
export type CarriedRoutine = Schemas['CarriedRoutine']
export type FlavourAnswer = Schemas['FlavourAnswer']
export type FlavourId = Schemas['FlavourId']
export type Learned = Schemas['Learned']
export type Passage = Schemas['Passage']
export type RoutinePreview = Schemas['RoutinePreview']
export type RunSeries = Schemas['RunSeries']
export type Progress = Schemas['Progress']
export type PacketReview = Schemas['PacketReview']
export type ReviewedDocument = Schemas['ReviewedDocument']
export type LooseFile = Schemas['LooseFile']
export type TakenDocument = Schemas['TakenDocument']
export type Recipe = Schemas['Recipe']
export type Refusal = Schemas['Refusal']
export type RegionAnswer = Schemas['RegionAnswer']
export type RunLine = Schemas['RunLine']
export type Severity = Schemas['Severity']
export type SliceMessage = Schemas['SliceMessage']
export type SourceKind = Schemas['SourceKind']
export type ResolvedSetting = Schemas['ResolvedSetting']
export type StockRevision = Schemas['StockRevision']
export type StoredRun = Schemas['StoredRun']
export type RunResult = StoredRun['result']
export type Trial = Schemas['Trial']
export type TrialOrderAnswer = Schemas['TrialOrderAnswer']
export type TrialStop = Schemas['TrialStop']
export type HeightBand = Schemas['HeightBand']
export type TrialLimits = Schemas['TrialLimits']
export type TrialPart = Schemas['TrialPart']
export type Verdict = Schemas['Verdict']
export type WhatIfMessage = Schemas['WhatIfMessage']
export type WhatIfVariant = Schemas['WhatIfVariant']
export type Zone = Schemas['Zone']

/** A request that was refused; the message is the sentence to show. */
export class Refused extends Error {
  constructor(readonly refusal: Partial<Refusal>) {
    super(refusal.detail ?? refusal.title ?? 'The server refused without saying why.')
  }
}

/** The data of an answer, or the refusal thrown. */
export function dataOf<T>(answer: { data?: T; error?: unknown; response: Response }): T {
  if (answer.error !== undefined) throw new Refused(asRefusal(answer.error))
  return answer.data as T
}

/** What a request came to, as JSON, or the refusal thrown. */
export async function answerOf<T>(answer: Response): Promise<T> {
  if (!answer.ok) throw new Refused(asRefusal(await answer.json().catch(() => ({ detail: `The server answered ${answer.status}.` }))))
  return (answer.status === 204 ? undefined : await answer.json()) as T
}

/** Problem details, whatever an error body holds. */
function asRefusal(error: unknown): Partial<Refusal> {
  return typeof error === 'object' && error !== null ? error : { detail: String(error) }
}

/** What to tell a person about any failure. */
export function sentenceOf(error: unknown): string {
  if (error instanceof Refused) return error.message
  if (error instanceof TypeError) return 'The server does not answer. Is it still running?'
  return error instanceof Error ? error.message : String(error)
}
