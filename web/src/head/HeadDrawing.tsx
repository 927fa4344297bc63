import { BeamDimensions, BodyDimensions, type EditDimension } from './HeadDimensions'
import { BeamShape, BodyShape, SecondHead, Tips } from './HeadShapes'
import { headLayout } from './headLayout'
import { useState } from 'react'
import type { Body } from '../api/client'
import { useCard } from '../open-card/CardContext'
import { isWithin, under, valueAt } from '../open-document/pointer'
import { border, Frame } from '../drawing/Frame'
import { Hatches } from '../drawing/Hatches'
import { outlineBox } from '../drawing/outline'
import { TypedOver } from '../drawing/TypedOver'
import { useSize } from '../drawing/useSize'
import { toX, toY } from '../drawing/view'
import '../drawing/drawing.css'

interface HeadDrawingProps {
  open: string | undefined
  onOpen: (pointer: string | undefined) => void
}

/** The head from the front and from below, projected from each other; what is open can be dragged. */
export function HeadDrawing({ open, onOpen }: HeadDrawingProps) {
  const { document: card, set, lit, light, limits } = useCard()
  const [ref, { width: w, height: h }] = useSize<HTMLDivElement>()
  const [editing, setEditing] = useState<{ pointer: string; label: string; x: number; y: number }>()
  const head = card.head ?? {}
  const bodies = head.bodies ?? []
  const beams = head.beams ?? []
  const sheet = headLayout(card, w, h)
  const { front, below, left, right } = sheet
  const body = bodies.findIndex((_, i) => open === under('/head/bodies', i))
  const beam = beams.findIndex((_, i) => open === under('/head/beams', i))
  const chosen = bodies[body]
  const edit: EditDimension = (pointer, label, x, y) => ({
    lit: lit !== undefined && isWithin(pointer, lit),
    onPoint: (on: boolean) => light(on ? pointer : undefined),
    onEdit: () => setEditing({ pointer, label, x, y }),
  })
  const second = (head.carriages?.length ?? 0) === 2 ? (head.leastDistance ?? 0) : undefined
  return (
    <div className="sheet" ref={ref}>
      {w > 0 && (
        <svg className="drawing head-drawing" viewBox={`0 0 ${w} ${h}`} aria-label={`Head of ${card.name || 'this card'}`}>
          <Hatches>
            <Frame width={w} height={h} />
            <text x={toX(front, 0)} y={border + 18} textAnchor="middle" className="title">
              HEAD FROM THE FRONT
            </text>
            <text x={toX(below, 0)} y={sheet.belowTop - 8} textAnchor="middle" className="title">
              FROM BELOW
            </text>
            <text x={left + 4} y={sheet.belowTop + 12} className="quiet-text">
              front of the machine
            </text>
            <text x={left + 4} y={h - border - 10} className="quiet-text">
              back
            </text>

            {beams.map((b, i) => (
              <BeamShape
                key={i}
                beam={b}
                front={front}
                below={below}
                top={sheet.frontTop}
                sides={[left, right]}
                ends={[sheet.belowTop, h - border - 4]}
                lit={beam === i || isWithin(lit, under('/head/beams', i))}
                onOpen={() => onOpen(under('/head/beams', i))}
              />
            ))}
            {second !== undefined && <SecondHead card={card} front={front} below={below} top={sheet.frontTop} away={second} />}
            {byDepth(bodies).map(({ body: b, i }) => (
              <BodyShape
                key={i}
                body={b}
                front={front}
                below={below}
                top={sheet.frontTop}
                chosen={body === i}
                lit={isWithin(lit, under('/head/bodies', i))}
                onOpen={() => onOpen(under('/head/bodies', i))}
                onPoint={(on) => light(on ? under('/head/bodies', i) : undefined)}
              />
            ))}
            <Tips card={card} front={front} below={below} onOpen={onOpen} />
            <path d={`M${left} ${toY(front, 0)}H${right}`} className="plate-line" />

            {chosen && <BodyDimensions body={chosen} at={under('/head/bodies', body)} sheet={sheet} edit={edit} set={set} />}
            {beams[beam] && <BeamDimensions beam={beams[beam]} at={under('/head/beams', beam)} sheet={sheet} edit={edit} set={set} />}
          </Hatches>
        </svg>
      )}
      {editing && (
        <TypedOver
          x={editing.x}
          y={editing.y}
          label={editing.label}
          value={valueAt(card, editing.pointer) as number | undefined}
          limits={limits(editing.pointer)}
          onChange={(value) => set(editing.pointer, value)}
          onClose={() => setEditing(undefined)}
        />
      )}
    </div>
  )
}

/** Bodies from the back to the front, as they hide each other. */
const byDepth = (bodies: Body[]) =>
  bodies.map((body, i) => ({ body, i })).sort((a, b) => outlineBox(b.body.outline).y - outlineBox(a.body.outline).y)
