import type { Beam, Body } from '../api/client'
import { Dimension } from '../drawing/Dimension'
import { outlineBox } from '../drawing/outline'
import { toX, toY } from '../drawing/view'
import { OutlineGrips } from '../open-card/OutlineGrips'
import { under } from '../open-document/pointer'
import { plain } from '../units/format'
import { EdgeGrip, HeightGrip } from './HeadGrips'
import type { HeadLayout } from './headLayout'

interface DimensionsProps {
  /** Pointer of what is measured. */
  at: string
  sheet: HeadLayout
  edit: EditDimension
  set: (pointer: string, value: unknown) => void
}

/** Makes a dimension one that can be typed over, at a place of the drawing. */
export type EditDimension = (
  pointer: string,
  label: string,
  x: number,
  y: number,
) => { lit: boolean; onPoint: (on: boolean) => void; onEdit: () => void }

/** Where a body stands from the tip and how large it is; its corners and its underside can be dragged. */
export function BodyDimensions({ body, at, sheet, edit, set }: DimensionsProps & { body: Body }) {
  const { front, below, left, right } = sheet
  const box = outlineBox(body.outline)
  // the sides of other shapes are no facts of their own
  const side: EditDimension | (() => object) = body.outline.shape === 'rectangle' ? edit : () => ({})
  return (
    <>
      <Dimension
        letter="N"
        from={[toX(front, box.x + box.width), toY(front, body.underside)]}
        to={[toX(front, box.x + box.width), toY(front, 0)]}
        at={right - 34}
        value={plain(body.underside)}
        {...edit(under(at, 'underside'), 'above the tip', right - 60, toY(front, body.underside / 2))}
      />
      <Dimension
        letter="M"
        from={[toX(below, box.x), toY(below, box.y)]}
        to={[toX(below, 0), toY(below, 0)].with(1, toY(below, box.y)) as [number, number]}
        at={sheet.belowTop + 22}
        value={plain(box.x)}
        {...side(under(at, 'outline', 'x'), 'left edge', toX(below, box.x / 2), sheet.belowTop + 22)}
      />
      <Dimension
        letter="M"
        from={[toX(below, box.x), toY(below, box.y + box.depth)]}
        to={[toX(below, box.x + box.width), toY(below, box.y + box.depth)]}
        at={Math.min(sheet.bottom - 26, toY(below, box.y + box.depth) + 30)}
        value={plain(box.width)}
        {...side(under(at, 'outline', 'width'), 'width', toX(below, box.x + box.width / 2), toY(below, box.y + box.depth) + 30)}
      />
      <Dimension
        letter="Q"
        from={[toX(below, box.x + box.width), toY(below, box.y)]}
        to={[toX(below, box.x + box.width), toY(below, box.y + box.depth)]}
        at={right - 34}
        value={plain(box.depth)}
        {...side(under(at, 'outline', 'depth'), 'depth', right - 60, toY(below, box.y + box.depth / 2))}
      />
      <Dimension
        letter="Q"
        from={[toX(below, box.x), toY(below, box.y)]}
        to={[toX(below, box.x), toY(below, 0)]}
        at={left + 34}
        value={plain(box.y)}
        {...side(under(at, 'outline', 'y'), 'front edge', left + 60, toY(below, box.y / 2))}
      />
      <OutlineGrips outline={body.outline} view={below} onChange={(outline) => set(under(at, 'outline'), outline)} />
      <HeightGrip
        x={toX(front, box.x + box.width / 2)}
        view={front}
        height={body.underside}
        label="underside"
        onChange={(underside) => set(under(at, 'underside'), underside)}
      />
    </>
  )
}

/** How high a beam runs; its underside and its faces can be dragged. */
export function BeamDimensions({ beam, at, sheet, edit, set }: DimensionsProps & { beam: Beam }) {
  const { front, below, right } = sheet
  return (
    <>
      <Dimension
        letter="S"
        from={[right - 60, toY(front, beam.underside)]}
        to={[right - 60, toY(front, 0)]}
        at={right - 34}
        value={plain(beam.underside)}
        {...edit(under(at, 'underside'), 'underside', right - 60, toY(front, beam.underside / 2))}
      />
      <HeightGrip
        x={toX(front, 0) + 40}
        view={front}
        height={beam.underside}
        label="underside of the beam"
        onChange={(underside) => set(under(at, 'underside'), underside)}
      />
      {(['near', 'far'] as const).map((face) => (
        <EdgeGrip key={face} beam={beam} face={face} view={below} onChange={(value) => set(under(at, face), value)} />
      ))}
    </>
  )
}
