import { useState } from 'react'
import { useRegions } from '../open-card/useRegions'
import { Hatches } from '../drawing/Hatches'
import { bedSize } from '../drawing/outline'
import { Plan } from '../drawing/Plan'
import { useSize } from '../drawing/useSize'
import { useZoom } from '../drawing/useZoom'
import { toX, toY, type View } from '../drawing/view'
import { plain } from '../units/format'
import { FrontOfTrial } from './FrontOfTrial'
import { HeadOnPlan } from './HeadAtMoment'
import { HeightRuler } from './HeightRuler'
import { LaidSoFar, LayerPaths } from './LayerPaths'
import { ModeOnPlan } from './ModeOnPlan'
import { GapField, GapsOnPlan } from './GapsOnPlan'
import { PartMenu, type MenuAt } from './PartMenu'
import { useBoxSelect } from './useBoxSelect'
import type { Gaps } from './snap'
import { PartOnBed } from './PartOnBed'
import type { SheetView } from './sheetViews'
import { useStep } from './useStep'
import { useTightened } from './useTightened'
import { useTrial } from './TrialContext'
import { ZonesOnPlan } from './ZonesOnDrawing'
import '../drawing/drawing.css'

const inset = { left: 52, right: 74, top: 40, between: 64, below: 30 }

/** The bed from above and from the front, with the parts on it and the layer that is looked at. */
export function Bed() {
  const { card, trial, meshes, fits, layers, layer, stale, order, moment, modePlan, sheetView, drawing, span } = useTrial(
    'card',
    'trial',
    'meshes',
    'fits',
    'layers',
    'layer',
    'stale',
    'order',
    'moment',
    'modePlan',
    'sheetView',
    'drawing',
    'span',
  )
  const [ref, { width: w, height: h }] = useSize<HTMLDivElement>()
  const tight = useTightened(card.document, trial.document.limits)
  const { regions, usable } = useRegions(tight)
  const parts = trial.document.parts ?? []
  const { width = 200, depth = 200 } = bedSize(card.document.envelope?.bed)
  const height = card.document.envelope?.height ?? 200
  const tallest = Math.max(0, ...meshes.map((mesh) => mesh?.size[2] ?? 0))
  const fit = placed(w, h, width, depth, Math.min(height, Math.max(tallest * 1.2, depth * 0.4)), sheetView)
  const zoom = useZoom()
  const view = zoom.zoomed(fit.plan)
  const shown = layers[layer]
  const worst = moment === undefined ? undefined : order?.moments[moment]
  const step = useStep()
  const head = worst ?? step?.head
  const [hasPlan, hasFront] = [sheetView !== 'front', sheetView !== 'plan']
  const foot = toY(fit.plan, 0) + 16
  const [typed, typeOver] = useState<keyof Gaps>()
  const [menu, setMenu] = useState<MenuAt>()
  const box = useBoxSelect(view, zoom.isZoomed)

  return (
    <div className="trial-bed" ref={ref}>
      {w > 0 && (
        <svg
          className="drawing"
          viewBox={`0 0 ${w} ${h}`}
          aria-label="Bed with parts"
          {...zoom.handlers}
          onPointerDown={(event) => box.down(event) || zoom.handlers.onPointerDown(event)}
          onPointerMove={(event) => box.move(event) || zoom.handlers.onPointerMove(event)}
          onPointerUp={() => box.up() || zoom.handlers.onPointerUp()}
          onContextMenu={(event) => {
            event.preventDefault()
            const part = (event.target as Element).closest('[data-part]')?.getAttribute('data-part')
            setMenu({ left: event.clientX, top: event.clientY, part: part === null || part === undefined ? undefined : Number(part) })
          }}
        >
          <Hatches>
            <text x={toX(fit.plan, 0)} y={22} className="title">
              {shown ? `LAYER ${layer + 1} OF ${layers.length}` : 'FROM ABOVE'}
            </text>
            {shown && (
              <text x={toX(fit.plan, 0) + 130} y={22} className="quiet-text">
                z {plain(step?.head?.z ?? shown.top)}, {plain(shown.height)} high{stale ? ', before the last change' : ''}
              </text>
            )}
            {hasPlan && (
              <svg
                x={0}
                y={32}
                width={Math.max(1, toX(fit.plan, width) + 8)}
                height={Math.max(1, foot - 32)}
                viewBox={`0 32 ${Math.max(1, toX(fit.plan, width) + 8)} ${Math.max(1, foot - 32)}`}
              >
                <Plan card={tight} view={view} regions={regions} usable={usable} />
                {modePlan && <ModeOnPlan plan={modePlan} view={view} />}
                {shown && !worst && (
                  <LayerPaths
                    layer={shown}
                    view={view}
                    old={stale}
                    drawing={drawing}
                    span={span}
                    upTo={step?.chosen ? step.at : undefined}
                  />
                )}
                {step && !worst && <LaidSoFar step={step} view={view} />}
                <ZonesOnPlan view={view} />
                {!worst && <GapsOnPlan view={view} onEdit={typeOver} />}
                {parts.map((part, i) => (
                  <PartOnBed
                    key={i}
                    index={i}
                    part={part}
                    view={view}
                    bad={fits?.[i]?.fits === false}
                    faint={Boolean(shown && !stale && !worst)}
                  />
                ))}
                {box.path && <path d={box.path} className="box-select" />}
                {head && <HeadOnPlan card={card.document} moment={head} view={view} width={width} />}
              </svg>
            )}
            {hasFront && <FrontOfTrial card={tight} view={fit.front} cutAt={fit.cutAt} />}
            <HeightRuler x={toX(fit.plan, width) + 20} top={hasPlan ? toY(fit.plan, depth) : fit.cutAt} foot={fit.ruler} />
          </Hatches>
        </svg>
      )}
      {zoom.isZoomed && (
        <button className="key fit-key" style={{ left: toX(fit.plan, width) + 14, top: 10 }} onClick={zoom.fit}>
          fit
        </button>
      )}
      {typed && <GapField view={view} side={typed} onClose={() => typeOver(undefined)} />}
      {menu && <PartMenu at={menu} onClose={() => setMenu(undefined)} />}
      {parts.length === 0 && hasPlan && (
        <div className="drop-here" style={{ left: toX(fit.plan, width / 2), top: toY(fit.plan, depth / 2) }}>
          Drop a file here: STL, 3MF, OBJ, AMF
        </div>
      )}
    </div>
  )
}

interface Layout {
  plan: View
  front: View
  /** Top of the elevation on the drawing, px. */
  cutAt: number
  /** Where the height ruler has its zero, px. */
  ruler: number
}

/**
 * Plan over elevation, to one scale and projected from each other; where a machine is too tall for that, its elevation is cut above the
 * parts. Either of them may fill the sheet.
 */
function placed(w: number, h: number, width: number, depth: number, height: number, fill: SheetView): Layout {
  const room = Math.max(60, w - inset.left - inset.right)
  const [rows, gaps] = {
    all: [depth + height, inset.between + inset.below],
    plan: [depth, inset.below],
    front: [height, inset.below],
    space: [depth + height, inset.between + inset.below],
  }[fill] as [number, number]
  const scale = Math.min(room / width, Math.max(120, h - inset.top - gaps) / rows)
  const x0 = inset.left + (room - width * scale) / 2
  const plan = { scale, x0, y0: inset.top + depth * scale }
  const cutAt = fill === 'front' ? inset.top : plan.y0 + inset.between
  const front = { scale, x0, y0: Math.min(h - inset.below, cutAt + height * scale) }
  return { plan, front, cutAt, ruler: fill === 'front' ? front.y0 : plan.y0 }
}
