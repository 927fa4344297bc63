import type { Bed, Card, Position } from '../api/client'
import { feeds, flavours, housings, layouts, nozzleMaterials, probeKinds, wearRatings, type Choice } from './words'
import { bedSize } from '../drawing/outline'

/** A fact as it stands in the schedule. */
export interface Fact {
  pointer: string
  label: string
  /** Keys it to the drawing. */
  letter?: string
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
const margins = (card: Card) => card.envelope?.use?.margin !== undefined && card.envelope.use.margin !== null
const sized = (card: Card) => card.envelope?.bed?.shape !== 'polygon'
/** A round bed has one size; an oval one, whose two sizes differ already, has two. */
const isDisc = (card: Card) => {
  const { width, depth } = bedSize(card.envelope?.bed)
  return round(card) && (depth === undefined || width === undefined || width === depth)
}
const chambered = (card: Card) => card.heat?.housing === 'heated-chamber'
const tubed = (card: Card) => card.head?.nozzles?.[0]?.feed?.kind === 'long-tube'
const bodied = (card: Card) => (card.head?.bodies?.length ?? 0) > 0
const boxed = (card: Card) => card.head?.bodies?.[0]?.outline.shape === 'rectangle'
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
          { value: 'ellipse', label: 'round' },
          { value: 'oval', label: 'oval' },
          { value: 'polygon', label: 'any outline' },
        ],
      },
      {
        pointer: '/envelope/bed/width',
        label: 'width',
        letter: 'A',
        kind: 'number',
        needed: true,
        when: sized,
        hint: 'left to right, where plastic may lie',
        asDisc: { label: 'diameter', hint: 'across the plate, where plastic may lie' },
      },
      {
        pointer: '/envelope/bed/depth',
        label: 'depth',
        letter: 'B',
        kind: 'number',
        needed: true,
        when: (card) => sized(card) && !isDisc(card),
        hint: 'front to back',
      },
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
      { pointer: '/envelope/use/why', label: 'why no higher', kind: 'text', when: (card) => Boolean(card.envelope?.use?.height) },
      { pointer: '/envelope/use/margin', label: 'margin all round', letter: 'E', kind: 'number' },
      { pointer: '/envelope/use/edges/left', label: 'left, more', kind: 'number', when: margins },
      { pointer: '/envelope/use/edges/right', label: 'right, more', kind: 'number', when: margins },
      { pointer: '/envelope/use/edges/front', label: 'front, more', kind: 'number', when: margins },
      { pointer: '/envelope/use/edges/back', label: 'back, more', kind: 'number', when: margins },
      { pointer: '/envelope/use/marginWhy', label: 'why a margin', kind: 'text', when: margins },
      {
        pointer: '/envelope/home',
        label: 'home',
        letter: 'H',
        kind: 'home',
        hint: 'where X and Y stand after homing, if not at the origin',
      },
    ],
  },
  {
    name: 'Head',
    facts: [
      { pointer: '/head/nozzles/0/diameter', label: 'nozzle', letter: 'K', kind: 'number', needed: true },
      { pointer: '/head/nozzles/0/material', label: 'nozzle material', kind: 'choice', choices: nozzleMaterials },
      {
        pointer: '/head/nozzles/0/wear',
        label: 'stands wear',
        kind: 'choice',
        choices: wearRatings,
        when: (card) => card.head?.nozzles?.[0]?.material === 'other',
      },
      {
        pointer: '/head/nozzles/0/filamentDiameter',
        label: 'filament',
        letter: 'L',
        kind: 'number',
        needed: true,
        hint: 'by caliper: about 1.75 or 2.85',
      },
      {
        pointer: '/head/nozzles/0/feed/kind',
        label: 'feed',
        kind: 'choice',
        hint: 'direct: the drive sits on the head; long tube: on the frame',
        choices: feeds,
      },
      {
        pointer: '/head/nozzles/0/feed/length',
        label: 'tube length',
        kind: 'number',
        when: tubed,
        hint: 'from the drive to the hot end',
      },
      { pointer: '/head/nozzles/0/maxTemperature', label: 'hot end rated to', kind: 'number' },
      { pointer: '/head/nozzles/0/maxFlow', label: 'melts up to', kind: 'number' },
      {
        pointer: '/head/probe/kind',
        label: 'probe',
        kind: 'choice',
        choices: probeKinds,
      },
      {
        pointer: '/head/bodies/0/outline/width',
        label: 'body, wide',
        letter: 'M',
        kind: 'number',
        needed: true,
        when: boxed,
        hint: 'the fan duct or whatever hangs lowest beside the nozzle',
      },
      { pointer: '/head/bodies/0/outline/depth', label: 'body, deep', kind: 'number', needed: true, when: boxed },
      {
        pointer: '/head/bodies/0/outline/x',
        label: 'its left edge',
        kind: 'number',
        needed: true,
        when: boxed,
        hint: 'from the nozzle; to the left is negative',
      },
      {
        pointer: '/head/bodies/0/outline/y',
        label: 'its front edge',
        kind: 'number',
        needed: true,
        when: boxed,
        hint: 'from the nozzle; to the front is negative',
      },
      {
        pointer: '/head/bodies/0/underside',
        label: 'body above tip',
        letter: 'N',
        kind: 'number',
        needed: true,
        when: bodied,
        hint: 'height of its underside above the tip of the nozzle',
      },
      { pointer: '/head/clearance', label: 'clearance', hint: 'room kept between head and anything that stands', kind: 'number' },
    ],
  },
  {
    name: 'Motion',
    facts: [
      {
        pointer: '/motion/layout',
        label: 'kind of motion',
        kind: 'choice',
        choices: layouts,
      },
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
        choices: housings,
      },
      { pointer: '/heat/chamber/max', label: 'chamber rated to', kind: 'number', when: chambered },
      { pointer: '/heat/chamber/best', label: 'chamber reached', kind: 'number', when: chambered },
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
        choices: flavours,
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
      { pointer: '/firmware/board', label: 'board', kind: 'text' },
      { pointer: '/firmware/version', label: 'version', kind: 'text' },
      { pointer: '/firmware/doesNotStore', label: 'does not store', kind: 'text' },
    ],
  },
]

/** A fact as it is asked on this card: the width of a disc is its diameter. */
export const asAsked = (fact: Fact, card: Card): Fact => (fact.asDisc && isDisc(card) ? { ...fact, ...fact.asDisc } : fact)

/** The places that a fact stands for: a diameter is both sizes. */
export const pointersOf = (fact: Fact, card: Card): string[] =>
  fact.asDisc && isDisc(card) ? [fact.pointer, '/envelope/bed/depth'] : [fact.pointer]

/** The fact at a pointer. */
export const factAt = (pointer: string): Fact | undefined => groups.flatMap((group) => group.facts).find((fact) => fact.pointer === pointer)

/** Letters of the head's facts on its own drawing. */
export const headLetters: [RegExp, string][] = [
  [/^\/head\/nozzles\/\d+\/diameter/, 'K'],
  [/^\/head\/nozzles\/\d+\/filamentDiameter/, 'L'],
  [/^\/head\/nozzles\/\d+\/offset/, 'T'],
  [/^\/head\/bodies\/\d+\/underside/, 'N'],
  [/^\/head\/bodies\/\d+\/outline\/(y|depth)/, 'Q'],
  [/^\/head\/bodies/, 'M'],
  [/^\/head\/beams\/\d+\/underside/, 'S'],
  [/^\/head\/beams/, 'R'],
  [/^\/head\/probe/, 'U'],
  [/^\/head\/(carriages|leastDistance)/, 'G'],
]

/** The letter of the fact at a pointer, or of the nearest fact above it. */
export function letterOf(pointer: string): string | undefined {
  if (pointer.startsWith('/envelope/keepOuts')) return 'F'
  const own = headLetters.find(([pattern]) => pattern.test(pointer))
  if (own) return own[1]
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
