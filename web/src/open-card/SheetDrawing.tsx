import { useState, type PointerEvent } from 'react'
import { Dimension } from '../drawing/Dimension'
import { Elevation } from '../drawing/Elevation'
import { Frame } from '../drawing/Frame'
import { Hatches } from '../drawing/Hatches'
import { HeadSection } from '../drawing/HeadSection'
import { BesideA4, Legend, legendLine } from '../drawing/Aside'
import { bedOutline, bedSize, outlineBox, outlinePath } from '../drawing/outline'
import { Plan } from '../drawing/Plan'
import { spread } from '../drawing/spread'
import { useRevisionState } from './useRevisions'
import { TitleBlock, titleBlockHeight } from '../drawing/TitleBlock'
import { TypedOver } from '../drawing/TypedOver'
import { useSize } from '../drawing/useSize'
import { useZoom } from '../drawing/useZoom'
import { fromX, fromY, toX, toY, type View } from '../drawing/view'
import { OutOfReach } from './OutOfReach'
import { useReach } from './useReach'
import { plain } from '../units/format'
import { isWithin, stepsOf, under, withValue } from '../open-document/pointer'
import { useCard } from './CardContext'
import { resized, withWidth } from './facts'
import { OutlineGrips } from './OutlineGrips'
import { snapped } from './snap'
import { useRegions } from './useRegions'
import '../drawing/drawing.css'

const border = 24
const side = 226
const gutter = 84

/** Picked in place of a keep-out's index when the bed's own outline is edited. */
const theBed = -1

/** A size to draw by while none is given yet. */
const unknown = 200

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
  const layout = placed(w, h, width ?? unknown, depth ?? unknown, height ?? unknown)
  const zoom = useZoom()
  const [plan, front] = [zoom.zoomed(layout.plan), zoom.zoomed(layout.front)]
  const [tool, setTool] = useState(false)
  const [rubber, setRubber] = useState<{ from: [number, number]; to: [number, number] }>()
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
  const at = (event: PointerEvent<SVGSVGElement>): [number, number] => {
    const box = event.currentTarget.getBoundingClientRect()
    return [fromX(plan, event.clientX - box.left), fromY(plan, event.clientY - box.top)]
  }
  const onRaster = (event: PointerEvent<SVGSVGElement>): [number, number] => {
    const [x, y] = at(event)
    const step = event.shiftKey ? 5 : 1
    return [snapped(x, step), snapped(y, step)]
  }
  const down = (event: PointerEvent<SVGSVGElement>) => {
    if (!tool) {
      setPicked(drawnBed?.shape === 'polygon' ? theBed : undefined)
      return zoom.handlers.onPointerDown(event)
    }
    event.currentTarget.setPointerCapture(event.pointerId)
    setRubber({ from: onRaster(event), to: onRaster(event) })
  }
  const move = (event: PointerEvent<SVGSVGElement>) => {
    const [x, y] = at(event)
    setBeneath(width && depth && x >= 0 && y >= 0 && x <= width && y <= depth ? { x, y } : undefined)
    if (rubber) setRubber({ ...rubber, to: onRaster(event) })
    else zoom.handlers.onPointerMove(event)
  }
  const up = () => {
    zoom.handlers.onPointerUp()
    if (!rubber) return
    const outline = rectangleOf(rubber)
    setRubber(undefined)
    setTool(false)
    if (outline.width < 1 || outline.depth < 1) return
    const keepOuts = card.envelope?.keepOuts ?? []
    change((before) => ({
      ...before,
      envelope: { ...before.envelope, keepOuts: [...keepOuts, { name: `keep-out ${keepOuts.length + 1}`, kind: 'reserved', outline }] },
    }))
    setPicked(keepOuts.length)
  }

  return (
    <div className={tool ? 'sheet drawing-keep-out' : 'sheet'} ref={ref}>
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
                onPick={tool ? undefined : setPicked}
              >
                {reach && reach.polygons.length > 0 && <OutOfReach card={card} view={plan} polygons={reach.polygons} />}
              </Plan>
              <Dimension
                letter="C"
                from={[toX(front, 0), toY(front, bh)]}
                to={[toX(front, 0), toY(front, 0)]}
                at={toX(front, 0) - 44}
                {...dimension('/envelope/height', height, 'height', { x: toX(front, 0) - 44, y: toY(front, bh / 2) })}
              />
              {(width === undefined || depth === undefined) && (
                <text x={toX(plan, bw / 2)} y={toY(plan, bd / 2)} textAnchor="middle" className="quiet-text">
                  drawn once width and depth are there
                </text>
              )}
              {width !== undefined && (
                <Dimension
                  letter="A"
                  from={[toX(plan, 0), toY(plan, 0)]}
                  to={[toX(plan, bw), toY(plan, 0)]}
                  at={toY(plan, 0) + 34}
                  {...dimension('/envelope/bed/width', width, 'width', { x: toX(plan, bw / 2), y: toY(plan, 0) + 34 })}
                />
              )}
              {depth !== undefined && (
                <Dimension
                  letter="B"
                  from={[toX(plan, 0), toY(plan, bd)]}
                  to={[toX(plan, 0), toY(plan, 0)]}
                  at={toX(plan, 0) - 44}
                  {...dimension('/envelope/bed/depth', depth, 'depth', { x: toX(plan, 0) - 44, y: toY(plan, bd / 2) })}
                />
              )}
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
              {rubber && <path d={outlinePath(rectangleOf(rubber), plan)} className="rubber" />}
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
          aria-pressed={tool}
          disabled={!width || !depth}
          title="drag on the plan; with Shift in steps of 5 mm"
          onClick={() => setTool(!tool)}
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

/** The rectangle between two corners. */
function rectangleOf({ from, to }: { from: [number, number]; to: [number, number] }) {
  return {
    shape: 'rectangle' as const,
    x: Math.min(from[0], to[0]),
    y: Math.min(from[1], to[1]),
    width: Math.abs(from[0] - to[0]),
    depth: Math.abs(from[1] - to[1]),
  }
}

interface Layout {
  plan: View
  front: View
  right: number
  headHeight: number
  a4Top: number
  a4Height: number
  /** Between these two heights the names of the keep-outs stand, px. */
  names: [number, number]
}

/** Where things stand on the sheet: elevation over plan at the left, to one scale; the rest in a column at the right. */
function placed(w: number, h: number, width: number, depth: number, height: number): Layout {
  const right = w - border - side
  const left = border + gutter
  const room = Math.max(40, right - 24 - left)
  const [above, between, below] = [30, 40, 64]
  const stack = Math.max(60, h - 2 * border - above - between - below)
  const scale = Math.min(room / width, stack / (height + depth))
  const x0 = left + (room - width * scale) / 2
  const spare = Math.max(0, stack - (height + depth) * scale)
  const floor = border + above + spare / 2 + height * scale
  const headHeight = Math.min(110, h * 0.14)
  const a4Top = border + 30 + headHeight + 34
  const a4Height = Math.max(60, Math.min(150, h - a4Top - 340))
  return {
    front: { scale, x0, y0: floor },
    plan: { scale, x0, y0: floor + between + depth * scale },
    right,
    headHeight,
    a4Top,
    a4Height,
    names: [a4Top + a4Height + 28 + 4 * legendLine, h - border - titleBlockHeight - 12],
  }
}

/** Names of the keep-outs, led out of the plan to a column where no two overlap. */
function Leaders({ layout, keepOut }: { layout: Layout; keepOut: number | undefined }) {
  const { document: card } = useCard()
  const { plan, right, names } = layout
  const line = 16
  const most = Math.max(1, Math.floor((names[1] - names[0]) / line))
  const named = (card.envelope?.keepOuts ?? [])
    .map((k, i) => {
      const box = outlineBox(k.outline)
      return {
        i,
        text: `F ${k.name}${k.kind === 'obstacle' && k.top ? `, ${plain(k.top)} high` : ''}`,
        x: toX(plan, box.x + box.width / 2),
        y: toY(plan, box.y + box.depth / 2),
      }
    })
    .sort((a, b) => a.y - b.y)
  const shown = named.slice(0, most)
  const at = spread(
    shown.map((label) => label.y),
    line,
    names[0],
    names[1],
  )
  const spots = shown.map((label, i) => ({ ...label, at: at[i]! }))
  const x = right - 4
  return (
    <g className="leaders">
      {spots.map((label) => (
        <g key={label.i} className={keepOut === label.i ? 'lit' : undefined}>
          <path d={`M${label.x} ${label.y}L${x - 14} ${label.at}H${x - 4}`} />
          <circle cx={label.x} cy={label.y} r="1.8" />
          <text x={x} y={label.at + 4}>
            {label.text.length > 26 ? `${label.text.slice(0, 25)}…` : label.text}
          </text>
        </g>
      ))}
      {named.length > shown.length && (
        <text x={x} y={at.at(-1)! + line + 4}>
          and {named.length - shown.length} more
        </text>
      )}
    </g>
  )
}
