import { useMemo, useRef, useState } from 'react'
import type { Card, TrialPart } from '../api/client'
import { bedOutline, bedSize, outlineRing } from '../drawing/outline'
import { useScheme } from '../drawing/useScheme'
import { useSize } from '../drawing/useSize'
import { useInks, type Inks } from '../pictorial/inks'
import { fitted, isometric, type Look } from '../pictorial/look'
import { Segments } from '../pictorial/segments'
import { SegmentLines } from '../pictorial/SegmentLines'
import { SolidPart } from '../pictorial/SolidPart'
import { SpaceView, type Label } from '../pictorial/SpaceView'
import { StrandLines } from '../pictorial/StrandLines'
import { HeadInSpace } from './HeadInSpace'
import type { Layer } from './layers'
import { scaleOf } from './placement'
import { SpaceHandles } from './SpaceHandles'
import { coarse, strandsOf } from './strands'
import { useTrial } from './TrialContext'
import { useHeldInSpace } from './useHeldInSpace'
import { useSolids } from './useSolids'
import { useStep } from './useStep'

/** The bed, what stands on it and what is laid of it, seen from a corner. */
export default function SpaceOfTrial() {
  const { card, trial, meshes, fits, layers, layer, stale, chosen, selected, choose, inSpace, drawing, span, pointing, point, hands } =
    useTrial(
      'card',
      'trial',
      'meshes',
      'fits',
      'layers',
      'layer',
      'stale',
      'chosen',
      'selected',
      'choose',
      'inSpace',
      'drawing',
      'span',
      'pointing',
      'point',
      'hands',
    )
  const stroke = useRef(0)
  const [ref, size] = useSize<HTMLDivElement>()
  const parts = trial.document.parts ?? []
  const solids = useSolids(parts)
  const { width = 200, depth = 200 } = bedSize(card.document.envelope?.bed)
  const tallest = Math.max(0, ...meshes.map((mesh) => mesh?.size[2] ?? 0))
  const [own, setOwn] = useState<Look>()
  const look = own ?? fitted(isometric, [width, depth, tallest], size)
  const inks = useInks()
  const shown = layers[layer]
  const cut = shown && !stale ? shown.top : undefined
  const scheme = useScheme()
  // beside the parts only the layer that is looked at is drawn
  const lined = useMemo(() => (inSpace === 'lines' ? layers : layers.slice(layer, layer + 1)), [inSpace, layers, layer])
  const strands = useMemo(() => strandsOf(lined, { inks, scheme, drawing, span }), [lined, inks, scheme, drawing, span])
  const step = useStep()
  const upTo = step?.chosen ? step.at : undefined
  const laid = useMemo(
    () => upTo !== undefined && shown && strandsOf([laidBy(shown, upTo)], { inks, scheme, drawing, span }),
    [upTo, shown, inks, scheme, drawing, span],
  )
  const soFar = useMemo(() => (step && shown ? alongAt(step.laid, shown.top) : undefined), [step, shown])
  const lastWhole = inSpace === 'parts' ? 0 : layer - (laid ? 1 : 0)
  const { holding, hold } = useHeldInSpace(look)
  const [turning, setTurning] = useState(false)
  const fewer = useMemo(
    () => (inSpace === 'lines' ? strandsOf(coarse(layers), { inks, scheme, drawing, span }) : strands),
    [inSpace, layers, strands, inks, scheme, drawing, span],
  )
  const held =
    selected.length === 1 && pointing.does === 'choose' && inSpace === 'parts' && chosen !== undefined ? parts[chosen] : undefined
  const labels: Label[] = [
    ...axesOf(card.document),
    ...parts.map((part, i): Label => ({
      at: [part.x ?? 0, part.y ?? 0, Math.min(cut ?? Infinity, (part.lift ?? 0) + (meshes[i]?.size[2] ?? 0))],
      text: String(i + 1),
      kind: chosen === i ? 'part chosen' : 'part',
    })),
  ]
  return (
    <div ref={ref} className="pictorial-room">
      {size.width > 0 && (
        <SpaceView
          name="Pictorial view"
          width={size.width}
          height={size.height}
          look={look}
          onLook={setOwn}
          onFit={() => setOwn(undefined)}
          onTurning={setTurning}
          painting={pointing.does === 'paint'}
          holding={holding}
          labels={labels}
        >
          <BedInSpace card={card.document} inks={inks} />
          {inSpace === 'parts' &&
            parts.map(
              (part, i) =>
                solids[i] && (
                  <SolidPart
                    key={part.id ?? i}
                    solid={solids[i]}
                    stance={{ scale: scaleOf(part), tilt: { x: part.tilt?.x ?? 0, y: part.tilt?.y ?? 0 } }}
                    place={{ x: part.x ?? 0, y: part.y ?? 0, z: part.lift ?? 0, turn: part.turn ?? 0 }}
                    look={look}
                    inks={inks}
                    edge={edgeOf(inks, selected.includes(i), fits?.[i]?.fits === false)}
                    marks={marksOf(part, inks)}
                    cut={cut}
                    onHold={(event) => hold(i, event)}
                    onPick={({ face }) => {
                      choose(i)
                      if (pointing.does !== 'stand') return
                      void hands.stand(i, face)
                      point({ does: 'choose' })
                    }}
                    brush={pointing.does === 'paint' ? pointing.brush / 2 : undefined}
                    onStroke={(faces, begins) => {
                      if (pointing.does !== 'paint') return
                      if (begins) stroke.current = Date.now()
                      hands.paint(i, faces, pointing.mark, stroke.current)
                    }}
                  />
                ),
            )}
          {shown && !(laid && inSpace === 'parts') && <StrandLines strands={turning ? fewer : strands} from={0} to={lastWhole} />}
          {laid && <StrandLines strands={laid} from={0} to={0} />}
          {soFar && <SegmentLines points={soFar} colour={inks.ink} />}
          {step?.head && <HeadInSpace card={card.document} at={step.head} inks={inks} />}
        </SpaceView>
      )}
      {held && chosen !== undefined && <SpaceHandles index={chosen} part={held} look={look} {...size} />}
    </div>
  )
}

/** What of a layer is laid after a program line. */
const laidBy = (layer: Layer, line: number): Layer => ({ ...layer, paths: layer.paths.filter(({ last }) => last <= line) })

/** A line of plastic at a height: x, y, x, y, … */
function alongAt(points: readonly number[], z: number) {
  const line = new Segments()
  for (let i = 0; i + 3 < points.length; i += 2) line.line([points[i]!, points[i + 1]!, z], [points[i + 2]!, points[i + 3]!, z])
  return line.points()
}

/** Madder where support is wanted, slate where it is not; ochre where seams are, moss where they are not. */
const marksOf = (part: TrialPart, inks: Inks) =>
  (part.marks ?? []).map(({ use, wanted, faces }) => {
    const [wantedInk, otherInk] = use === 'seam' ? [inks.ochre, inks.moss] : [inks.madder, inks.slate]
    return { faces, tint: wanted ? wantedInk : otherInk }
  })

const edgeOf = (inks: Inks, chosen: boolean, bad: boolean) => (chosen || bad ? inks.madder : inks.ink)

function axesOf(card: Card): Label[] {
  const { x = 0, y = 0 } = card.envelope?.origin ?? {}
  return [
    { at: [x + axis + 5, y, 0], text: 'X', kind: 'axis' },
    { at: [x, y + axis + 5, 0], text: 'Y', kind: 'axis' },
    { at: [x, y, axis + 5], text: 'Z', kind: 'axis' },
  ]
}

const axis = 26
const pitch = 20

/** The bed with its grid, what stands on it for good, and the machine's axes. */
function BedInSpace({ card, inks }: { card: Card; inks: Inks }) {
  const { grid, ink, madder } = useMemo(() => linesOfBed(card), [card])
  return (
    <>
      <SegmentLines points={grid} colour={inks.hair} />
      <SegmentLines points={ink} colour={inks.ink} />
      <SegmentLines points={madder} colour={inks.madder} />
    </>
  )
}

function linesOfBed(card: Card) {
  const bed = bedOutline(card.envelope?.bed)
  const { width = 0, depth = 0 } = bedSize(card.envelope?.bed)
  const [grid, ink, madder] = [new Segments(), new Segments(), new Segments()]
  if (bed) {
    const round = bed.shape === 'ellipse'
    for (let x = pitch; x < width; x += pitch) {
      const half = round ? (depth / 2) * Math.sqrt(Math.max(0, 1 - (2 * (x / width) - 1) ** 2)) : depth / 2
      grid.line([x, depth / 2 - half, 0], [x, depth / 2 + half, 0])
    }
    for (let y = pitch; y < depth; y += pitch) {
      const half = round ? (width / 2) * Math.sqrt(Math.max(0, 1 - (2 * (y / depth) - 1) ** 2)) : width / 2
      grid.line([width / 2 - half, y, 0], [width / 2 + half, y, 0])
    }
    ink.ring(outlineRing(bed), 0)
  }
  for (const keepOut of card.envelope?.keepOuts ?? []) {
    const ring = outlineRing(keepOut.outline)
    if (keepOut.kind === 'obstacle' && keepOut.top) ink.prism(ring, 0, keepOut.top)
    else grid.ring(ring, 0)
  }
  const { x = 0, y = 0 } = card.envelope?.origin ?? {}
  madder
    .line([x, y, 0], [x + axis, y, 0])
    .line([x, y, 0], [x, y + axis, 0])
    .line([x, y, 0], [x, y, axis])
  return { grid: grid.points(), ink: ink.points(), madder: madder.points() }
}
