import { BedDimensions } from './BedDimensions'
import { Leaders } from './Leaders'
import { sheetLayout, side, unknown } from './sheetLayout'
import { placeOf, useDrawnKeepOut } from './useDrawnKeepOut'
import { useState, type PointerEvent } from 'react'
import { Elevation } from '../drawing/Elevation'
import { border, Frame } from '../drawing/Frame'
import { Hatches } from '../drawing/Hatches'
import { HeadSection } from '../drawing/HeadSection'
import { BesideA4, Legend } from '../drawing/Aside'
import { bedOutline, bedSize, outlinePath } from '../drawing/outline'
import { Plan } from '../drawing/Plan'
import { useRevisionState } from './useRevisions'
import { TitleBlock } from '../drawing/TitleBlock'
import { TypedOver } from '../drawing/TypedOver'
import { useSize } from '../drawing/useSize'
import { useZoom } from '../drawing/useZoom'
import { toX, toY } from '../drawing/view'
import { OutOfReach } from './OutOfReach'
import { useReach } from './useReach'
import { plain } from '../units/format'
import { isWithin, stepsOf, under, withValue } from '../open-document/pointer'
import { useCard } from './CardContext'
import { resized, withWidth } from './facts'
import { OutlineGrips } from './OutlineGrips'
import { useRegions } from './useRegions'
import '../drawing/drawing.css'

/** Picked in place of a keep-out's index when the bed's own outline is edited. */
const theBed = -1

/** The engineering sheet: plan and front elevation projected from each other, with dimensions keyed to the schedule. */
export function SheetDrawing() {
  const { id, document: card, savedAt, lit, light, limits, change, set } = useCard()
  const state = useRevisionState(id, savedAt)
  const [ref, { width: w, height: h }] = useSize<HTMLDivElement>()
  const [beneath, setBeneath] = useState<{ x: number; y: number }>()
  const [editing, setEditing] = useState<{ pointer: string; label: string; x: number; y: number }>()
  const { regions, usable } = useRegions(card)
  const reach = useReach(card)?.nozzles[0]

  const { width, depth } = bedSize(card.envelope?.bed)
  const height = card.envelope?.height ?? undefined
  const layout = sheetLayout(w, h, width ?? unknown, depth ?? unknown, height ?? unknown)
  const zoom = useZoom()
  const [plan, front] = [zoom.zoomed(layout.plan), zoom.zoomed(layout.front)]
  const views = { plan, front }
  const [picked, setPicked] = useState<number>()
  const [bw, bd, bh] = [width ?? unknown, depth ?? unknown, height ?? unknown]
  const origin = card.envelope?.origin
  const drawnBed = bedOutline(card.envelope?.bed)
  const bedCorners = picked === theBed && drawnBed?.shape === 'polygon' ? drawnBed : undefined
  const keepOut = lit !== undefined && isWithin(lit, '/envelope/keepOuts') ? Number(stepsOf(lit)[2]) : undefined
  const dimension = (pointer: string, value: number | undefined, label: string, at: { x: number; y: number }) => ({
    value: value === undefined ? '?' : plain(value),
    lit: lit === pointer,
    onPoint: (on: boolean) => light(on ? pointer : undefined),
    onEdit: () => setEditing({ pointer, label, ...at }),
  })
  const drawn = useDrawnKeepOut(plan, (outline) => {
    const keepOuts = card.envelope?.keepOuts ?? []
    change((before) => ({
      ...before,
      envelope: { ...before.envelope, keepOuts: [...keepOuts, { name: `keep-out ${keepOuts.length + 1}`, kind: 'reserved', outline }] },
    }))
    setPicked(keepOuts.length)
  })
  const down = (event: PointerEvent<SVGSVGElement>) => {
    if (drawn.begin(event)) return
    setPicked(drawnBed?.shape === 'polygon' ? theBed : undefined)
    zoom.handlers.onPointerDown(event)
  }
  const move = (event: PointerEvent<SVGSVGElement>) => {
    const [x, y] = placeOf(event, plan)
    setBeneath(width && depth && x >= 0 && y >= 0 && x <= width && y <= depth ? { x, y } : undefined)
    if (!drawn.pull(event)) zoom.handlers.onPointerMove(event)
  }
  const up = () => {
    zoom.handlers.onPointerUp()
    drawn.end()
  }

  return (
    <div className={drawn.armed ? 'sheet drawing-keep-out' : 'sheet'} ref={ref}>
      {w > 0 && (
        <svg
          className="drawing"
          viewBox={`0 0 ${w} ${h}`}
          role="img"
          aria-label={`Drawing of ${card.name || 'this card'}`}
          onWheel={zoom.handlers.onWheel}
          onPointerDown={down}
          onPointerMove={move}
          onPointerUp={up}
          onPointerCancel={up}
          onPointerLeave={() => setBeneath(undefined)}
        >
          <Hatches>
            <Frame width={w} height={h} />
            <svg
              x={border}
              y={border}
              width={Math.max(1, layout.right - 12 - border)}
              height={Math.max(1, h - 2 * border)}
              viewBox={`${border} ${border} ${Math.max(1, layout.right - 12 - border)} ${Math.max(1, h - 2 * border)}`}
            >
              <text x={toX(front, bw / 2)} y={toY(front, bh) - 12} textAnchor="middle" className="title">
                FRONT
              </text>
              <Elevation card={card} view={front} lit={keepOut} />
              <text x={toX(plan, bw / 2)} y={toY(plan, bd) - 10} textAnchor="middle" className="title">
                FROM ABOVE
              </text>
              <Plan
                card={card}
                view={plan}
                regions={regions}
                usable={usable}
                lit={keepOut}
                onPoint={(i) => light(i === undefined ? undefined : under('/envelope/keepOuts', i))}
                onPick={drawn.armed ? undefined : setPicked}
              >
                {reach && reach.polygons.length > 0 && <OutOfReach card={card} view={plan} polygons={reach.polygons} />}
              </Plan>
              <BedDimensions card={card} layout={views} dimension={dimension} />
              {picked !== undefined && card.envelope?.keepOuts?.[picked] && (
                <OutlineGrips
                  outline={card.envelope.keepOuts[picked].outline}
                  view={plan}
                  onChange={(outline) => set(under('/envelope/keepOuts', picked, 'outline'), outline)}
                />
              )}
              {bedCorners && (
                <OutlineGrips
                  outline={bedCorners}
                  view={plan}
                  movable={false}
                  onChange={(outline) => set('/envelope/bed/points', (outline as { points: number[][] }).points)}
                />
              )}
              {drawn.outline && <path d={outlinePath(drawn.outline, plan)} className="rubber" />}
            </svg>
            {!zoom.isZoomed && width !== undefined && depth !== undefined && <Leaders layout={layout} keepOut={keepOut} />}
            <HeadSection card={card} x={layout.right} y={border + 30} width={side - 16} height={layout.headHeight} />
            <BesideA4 card={card} x={layout.right} y={layout.a4Top} width={side - 100} height={layout.a4Height} />
            <Legend card={card} x={layout.right} y={layout.a4Top + layout.a4Height + 28} />
            <TitleBlock card={card} state={state} savedAt={savedAt} right={w - border} bottom={h - border} />
            {beneath && (
              <text x={border + 8} y={h - border - 8} className="mono-text on-paper" data-read-out>
                bed {plain(beneath.x, 1)}, {plain(beneath.y, 1)}
                {origin && `  machine X${plain(beneath.x - origin.x, 1)} Y${plain(beneath.y - origin.y, 1)}`}
              </text>
            )}
          </Hatches>
        </svg>
      )}
      <div className="sheet-keys">
        <button
          className="key"
          aria-pressed={drawn.armed}
          disabled={!width || !depth}
          title="drag on the plan; with Shift in steps of 5 mm"
          onClick={drawn.toggle}
        >
          draw a keep-out
        </button>
        {zoom.isZoomed && (
          <button className="key" onClick={zoom.fit}>
            fit
          </button>
        )}
      </div>
      {editing && (
        <TypedOver
          x={editing.x}
          y={editing.y}
          label={editing.label}
          value={{ '/envelope/height': height, '/envelope/bed/width': width, '/envelope/bed/depth': depth }[editing.pointer]}
          limits={limits(editing.pointer)}
          onChange={(value) =>
            change((before) => {
              const after = withValue(before, editing.pointer, value)
              return resized(before, editing.pointer.endsWith('width') ? withWidth(before, after) : after)
            }, editing.pointer)
          }
          onClose={() => setEditing(undefined)}
        />
      )}
    </div>
  )
}
