import type { Card } from '../api/client'
import { bedSize } from '../drawing/outline'

/** A choice among words. */
export interface Choice {
  value: string
  label: string
}

/** A fact as it stands in the schedule. */
export interface Fact {
  pointer: string
  label: string
  /** Keys it to the drawing. */
  letter?: string
  kind: 'number' | 'text' | 'choice' | 'yes-no' | 'origin'
  choices?: Choice[]
  /** A card without it cannot be sliced; nothing fills it in silence. */
  needed?: boolean
  percent?: boolean
  /** Where to look for it. */
  hint?: string
  /** Whether it makes sense on this card. */
  when?: (card: Card) => boolean
}

export interface FactGroup {
  name: string
  facts: Fact[]
}

const round = (card: Card) => card.envelope?.bed?.shape === 'ellipse'
const heated = (card: Card) => card.envelope?.heated === true

/** The schedule, in the order of the sheet. A fact is one entry here and one member of the document. */
export const groups: FactGroup[] = [
  {
    name: 'Envelope',
    facts: [
      {
        pointer: '/envelope/bed/shape',
        label: 'bed shape',
        kind: 'choice',
        needed: true,
        choices: [
          { value: 'rectangle', label: 'rectangle' },
          { value: 'ellipse', label: 'round or oval' },
        ],
      },
      {
        pointer: '/envelope/bed/width',
        label: 'width',
        letter: 'A',
        kind: 'number',
        needed: true,
        hint: 'left to right, where plastic may lie',
      },
      { pointer: '/envelope/bed/depth', label: 'depth', letter: 'B', kind: 'number', needed: true, hint: 'front to back' },
      {
        pointer: '/envelope/height',
        label: 'height',
        letter: 'C',
        kind: 'number',
        needed: true,
        hint: 'nozzle to plate, at the top of its travel',
      },
      { pointer: '/envelope/origin', label: 'origin', letter: 'D', kind: 'origin', needed: true, hint: 'where the machine counts X 0 Y 0' },
      { pointer: '/envelope/use/height', label: 'use up to', kind: 'number', hint: 'a limit of your own below the height' },
      { pointer: '/envelope/use/margin', label: 'margin all round', letter: 'E', kind: 'number' },
      {
        pointer: '/envelope/use/why',
        label: 'why less',
        kind: 'text',
        when: (card) => Boolean(card.envelope?.use?.height ?? card.envelope?.use?.margin),
      },
    ],
  },
  {
    name: 'Head',
    facts: [
      { pointer: '/head/nozzles/0/diameter', label: 'nozzle', letter: 'K', kind: 'number', needed: true },
      { pointer: '/head/nozzles/0/material', label: 'nozzle material', kind: 'text' },
      {
        pointer: '/head/nozzles/0/filamentDiameter',
        label: 'filament',
        letter: 'L',
        kind: 'number',
        needed: true,
        hint: 'by caliper: about 1.75 or 2.85',
      },
      { pointer: '/head/nozzles/0/maxTemperature', label: 'hot end rated to', kind: 'number' },
      { pointer: '/head/nozzles/0/maxFlow', label: 'melts up to', kind: 'number' },
      { pointer: '/head/clearance', label: 'clearance', hint: 'room kept between head and anything that stands', kind: 'number' },
    ],
  },
  {
    name: 'Heat',
    facts: [
      { pointer: '/envelope/heated', label: 'bed heated', kind: 'yes-no', needed: true },
      { pointer: '/heat/bed/max', label: 'bed rated to', kind: 'number', when: heated },
      { pointer: '/heat/bed/best', label: 'bed reached', letter: 'P', kind: 'number', when: heated },
      {
        pointer: '/heat/housing',
        label: 'housing',
        kind: 'choice',
        choices: [
          { value: 'open', label: 'open' },
          { value: 'closed', label: 'closed' },
          { value: 'heated-chamber', label: 'heated chamber' },
        ],
      },
      { pointer: '/heat/room', label: 'room', kind: 'number' },
    ],
  },
  {
    name: 'Firmware',
    facts: [
      {
        pointer: '/firmware/flavour',
        label: 'flavour',
        kind: 'choice',
        needed: true,
        choices: [
          { value: 'marlin', label: 'Marlin' },
          { value: 'reprapfirmware', label: 'RepRapFirmware' },
        ],
      },
      {
        pointer: '/firmware/extrusion',
        label: 'E words',
        kind: 'choice',
        choices: [
          { value: 'relative', label: 'relative' },
          { value: 'absolute', label: 'absolute' },
        ],
      },
    ],
  },
]

/** The letter of the fact at a pointer, or of the nearest fact above it. */
export function letterOf(pointer: string): string | undefined {
  if (pointer.startsWith('/envelope/keepOuts')) return 'F'
  return groups.flatMap((group) => group.facts).find((fact) => fact.letter && pointer.startsWith(fact.pointer))?.letter
}

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

/** Which named place the origin is at; undefined where there is none, or it is at no named place. */
export function originPlace(card: Card): OriginPlace | undefined {
  const { width, depth } = bedSize(card.envelope?.bed)
  const origin = card.envelope?.origin
  if (!origin || !width || !depth) return undefined
  return originPlaces(card).find((place) => {
    const at = place.at(width, depth)
    return Math.abs(at.x - origin.x) < 1e-6 && Math.abs(at.y - origin.y) < 1e-6
  })
}

/** A card with a new bed size; an origin at a named place stays at that place. */
export function resized(card: Card, next: Card): Card {
  const place = originPlace(card)
  const { width, depth } = bedSize(next.envelope?.bed)
  if (!place || !width || !depth || place.value === 'front-left') return next
  return { ...next, envelope: { ...next.envelope, origin: { ...next.envelope?.origin, ...place.at(width, depth) } } }
}

/** A card of which nothing is known. */
export const blankCard: Card = {
  schema: 'mill-card/card/1',
  envelope: { bed: { shape: 'rectangle' }, keepOuts: [] },
  head: { nozzles: [{ id: 'n1' }], bodies: [], beams: [] },
  firmware: { extrusion: 'relative' },
}
