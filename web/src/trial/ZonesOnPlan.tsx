import type { Zone } from '../api/client'
import { toX, toY, type View } from '../drawing/view'

/** Zones from above; a mesh's outline is not drawn, its middle is. */
export function ZonesOnPlan({ zones, view }: { zones: Zone[]; view: View }) {
  return zones.map((zone, i) => {
    const [x, y] = [toX(view, zone.x ?? 0), toY(view, zone.y ?? 0)]
    const [w, d] = zone.shape === 'box' ? [zone.width * view.scale, zone.depth * view.scale] : [0, 0]
    return (
      <g key={i} className="zone-outline" pointerEvents="none">
        {zone.shape === 'box' && <rect x={x - w / 2} y={y - d / 2} width={w} height={d} />}
        {zone.shape === 'cylinder' && <circle cx={x} cy={y} r={zone.radius * view.scale} />}
        {zone.shape === 'mesh' && <path d={`M${x - 6} ${y}h12M${x} ${y - 6}v12`} />}
        <text x={x} y={y - d / 2 - 4} textAnchor="middle" stroke="none">
          {zone.name}
        </text>
      </g>
    )
  })
}
