import type { Bed, Card, Position } from '../api/client'
import type { Setting } from '../open-document/description'
import { pointerOf, stepsOf, valueAt, under } from '../open-document/pointer'
import { bedSize } from '../drawing/outline'
import { letterOf } from './letters'
import { choicesOf, type Choice } from './words'

/** A fact as it stands in the schedule. */
export interface Fact {
  pointer: string
  label: string
  /** Keys it to the drawing. */
  letter?: string | undefined
  kind: 'number' | 'text' | 'choice' | 'yes-no' | 'origin' | 'home'
  choices?: Choice[]
  /** A card without it cannot be sliced; nothing fills it in silence. */
  needed?: boolean
  percent?: boolean
  /** Where to look for it. */
  hint?: string
  /** What it is called where the bed is a disc. */
  asDisc?: { label: string; hint: string }
  /** Whether it makes sense on this card. */
  when?: (card: Card) => boolean
}

export interface FactGroup {
  name: string
  facts: Fact[]
}

const round = (card: Card) => card.envelope?.bed?.shape === 'ellipse'
const sized = (card: Card) => card.envelope?.bed?.shape !== 'polygon'
/** A round bed has one size; an oval one, whose two sizes differ already, has two. */
const isDisc = (card: Card) => {
  const { width, depth } = bedSize(card.envelope?.bed)
  return round(card) && (depth === undefined || width === undefined || width === depth)
}

/** What the page asks in its own way: the bed's shape knows ovals, and a disc has one size. */
const own: Record<string, Partial<Fact>> = {
  '/envelope/bed': {
    pointer: '/envelope/bed/shape',
    kind: 'choice',
    choices: [
      { value: 'rectangle', label: 'rectangle' },
      { value: 'ellipse', label: 'round' },
      { value: 'oval', label: 'oval' },
      { value: 'polygon', label: 'any outline' },
    ],
  },
  '/envelope/bed/width': { when: sized, asDisc: { label: 'diameter', hint: 'across the plate, where plastic may lie' } },
  '/envelope/bed/depth': { when: (card) => sized(card) && !isDisc(card) },
  '/envelope/origin': { kind: 'origin' },
  '/envelope/home': { kind: 'home' },
  // lettered on the head's own drawing only
  ...Object.fromEntries(['x', 'y', 'depth'].map((k) => [under('/head/bodies/0/outline', k), { letter: undefined }])),
  '/head/probe/kind': { letter: undefined },
}

const order = ['Envelope', 'Head', 'Motion', 'Heat', 'Firmware']

/** The sheet's schedule of the settings that the server describes. */
export function factGroups(settings: Setting[]): FactGroup[] {
  const facts = settings.filter((setting) => setting.pages.includes('sheet'))
  return order.map((name) => ({ name, facts: facts.filter(({ group }) => group === name).map(factOf) }))
}

const kinds: Partial<Record<Setting['kind'], Fact['kind']>> = { open: 'yes-no', switch: 'yes-no', choice: 'choice', number: 'number' }

function factOf(setting: Setting): Fact {
  const { pointer, label, kind, choices, hint, when } = setting
  return {
    pointer,
    label,
    letter: letterOf(pointer),
    kind: kinds[kind] ?? 'text',
    ...(choices && { choices: choicesOf(choices).filter(({ value }) => value !== '') }),
    needed: setting.needed ?? false,
    ...(setting.percent && { percent: true }),
    ...(hint && { hint }),
    ...(when && { when: (card: Card) => holds(card, pointer, when) }),
    ...own[pointer],
  }
}

/** Whether a condition of the server's holds: a fact beside another, or at a pointer, that is said, or says a word. */
function holds(card: Card, pointer: string, when: string): boolean {
  const [place = '', word] = when.split('=')
  const from = place.startsWith('/') ? [] : stepsOf(pointer).slice(0, -1)
  const steps = place
    .split('/')
    .filter(Boolean)
    .reduce<string[]>((at, step) => (step === '..' ? at.slice(0, -1) : [...at, step]), from)
  const value = valueAt(card, pointerOf(steps))
  return word === undefined ? value !== undefined && value !== null && value !== '' : String(value) === word
}

/** A fact as it is asked on this card: the width of a disc is its diameter. */
export const asAsked = (fact: Fact, card: Card): Fact => (fact.asDisc && isDisc(card) ? { ...fact, ...fact.asDisc } : fact)

/** The places that a fact stands for: a diameter is both sizes. */
export const pointersOf = (fact: Fact, card: Card): string[] =>
  fact.asDisc && isDisc(card) ? [fact.pointer, '/envelope/bed/depth'] : [fact.pointer]

/** A place that the origin can be chosen to be. */
export interface OriginPlace extends Choice {
  at: (width: number, depth: number) => { x: number; y: number }
}

const corners: OriginPlace[] = [
  { value: 'front-left', label: 'front left', at: () => ({ x: 0, y: 0 }) },
  { value: 'front-right', label: 'front right', at: (w) => ({ x: w, y: 0 }) },
  { value: 'back-left', label: 'back left', at: (_, d) => ({ x: 0, y: d }) },
  { value: 'back-right', label: 'back right', at: (w, d) => ({ x: w, y: d }) },
]
const centre: OriginPlace = { value: 'centre', label: 'centre', at: (w, d) => ({ x: w / 2, y: d / 2 }) }

/** The places at which a bed's origin can be, the likeliest first. */
export const originPlaces = (card: Card): OriginPlace[] => (round(card) ? [centre, ...corners] : [...corners, centre])

/** Which named place of the bed a point is at; undefined where it is at none. */
export function placeOf(card: Card, point: Position | null | undefined): OriginPlace | undefined {
  const { width, depth } = bedSize(card.envelope?.bed)
  if (!point || !width || !depth) return undefined
  return originPlaces(card).find((place) => {
    const at = place.at(width, depth)
    return Math.abs(at.x - point.x) < 1e-6 && Math.abs(at.y - point.y) < 1e-6
  })
}

/** A card with a new bed size; an origin at a named place stays at that place. */
export function resized(card: Card, next: Card): Card {
  const place = placeOf(card, card.envelope?.origin)
  const { width, depth } = bedSize(next.envelope?.bed)
  if (!place || !width || !depth || place.value === 'front-left') return next
  return { ...next, envelope: { ...next.envelope, origin: { ...next.envelope?.origin, ...place.at(width, depth) } } }
}

/** The choice that stands for a bed's shape: an oval is an ellipse whose sizes differ. */
export const shapeOf = (card: Card): string | undefined => {
  const shape = card.envelope?.bed?.shape
  return shape === 'ellipse' && !isDisc(card) ? 'oval' : shape
}

/** A card with another width of its bed: a disc stays one. */
export const withWidth = (before: Card, after: Card): Card =>
  isDisc(before) && after.envelope?.bed?.shape === 'ellipse'
    ? { ...after, envelope: { ...after.envelope, bed: { ...after.envelope.bed, depth: after.envelope.bed.width } } }
    : after

/** A card of which nothing is known. */
export const blankCard: Card = {
  schema: 'mill-card/card/1',
  envelope: { bed: { shape: 'rectangle' }, keepOuts: [] },
  head: { nozzles: [{ id: 'n1' }], bodies: [], beams: [] },
  firmware: { extrusion: 'relative' },
}

/** The bed in another shape that covers the same place; what is not known yet stays open. */
export function bedOfShape(bed: Bed | null | undefined, shape: string | undefined): Bed | undefined {
  const { width, depth } = bedSize(bed)
  if (shape === 'rectangle') return { shape, width, depth }
  if (shape === 'ellipse') return { shape, width, depth: width }
  // two sizes that differ tell an oval from a disc
  if (shape === 'oval') return { shape: 'ellipse', width, depth: width !== undefined && width === depth ? width + 1 : depth }
  if (shape !== 'polygon') return undefined
  const [w, d] = [width ?? 200, depth ?? 200]
  const points =
    bed?.shape === 'ellipse'
      ? Array.from({ length: 48 }, (_, i) => [(1 + Math.cos((Math.PI * i) / 24)) * (w / 2), (1 + Math.sin((Math.PI * i) / 24)) * (d / 2)])
      : [
          [0, 0],
          [w, 0],
          [w, d],
          [0, d],
        ]
  return { shape, points }
}
