import type { Zone } from '../api/client'
import { toX, toY, type View } from '../drawing/view'
import { useHeld } from './useHeld'
import { useTrial } from './TrialContext'

const tenth = (value: number) => Math.round(value * 10) / 10
const least = 0.5

function useZone(index: number) {
  const { trial } = useTrial('trial')
  return {
    zone: trial.document.zones![index]!,
    change: (to: (zone: Zone) => Zone) =>
      trial.change((before) => ({ ...before, zones: before.zones?.map((zone, i) => (i === index ? to(zone) : zone)) }), `zone ${index}`),
  }
}

/** Half of what a zone takes along X and Y; a mesh's outline is not drawn, its middle is. */
function halfOf(zone: Zone): [number, number] {
  if (zone.shape === 'box') return [zone.width / 2, zone.depth / 2]
  return zone.shape === 'cylinder' ? [zone.radius, zone.radius] : [0, 0]
}

const heightOf = (zone: Zone) => ('height' in zone ? zone.height : 0)

/** Zones from above: moved by their outline, pulled by their corner. */
export function ZonesOnPlan({ view }: { view: View }) {
  const { trial } = useTrial('trial')
  return (trial.document.zones ?? []).map((zone, i) => zone.shape !== 'heights' && <ZoneOnPlan key={zone.id ?? i} index={i} view={view} />)
}

function ZoneOnPlan({ index, view }: { index: number; view: View }) {
  const { zone, change } = useZone(index)
  const move = useHeld(
    view.scale,
    () => zone,
    (start, right, up) => change((now) => ({ ...now, x: tenth((start.x ?? 0) + right), y: tenth((start.y ?? 0) + up) })),
  )
  const pull = useHeld(
    view.scale,
    () => zone,
    (start, right, up) =>
      change((now) => {
        if (now.shape === 'box' && start.shape === 'box')
          return { ...now, width: Math.max(least, tenth(start.width + 2 * right)), depth: Math.max(least, tenth(start.depth + 2 * up)) }
        if (now.shape === 'cylinder' && start.shape === 'cylinder') return { ...now, radius: Math.max(least, tenth(start.radius + right)) }
        return now
      }),
  )
  const [x, y] = [toX(view, zone.x ?? 0), toY(view, zone.y ?? 0)]
  const [w, d] = halfOf(zone).map((half) => half * view.scale) as [number, number]
  return (
    <g className="zone-outline">
      <g {...move} className="zone-grip" tabIndex={0} role="button" aria-label={`zone ${zone.name}, to be moved`}>
        {zone.shape === 'box' && <rect x={x - w} y={y - d} width={2 * w} height={2 * d} />}
        {zone.shape === 'cylinder' && <circle cx={x} cy={y} r={w} />}
        {zone.shape === 'mesh' && <path d={`M${x - 6} ${y}h12M${x} ${y - 6}v12`} />}
        <text x={x} y={y - d - 4} textAnchor="middle" stroke="none">
          {zone.name}
        </text>
      </g>
      {zone.shape !== 'mesh' && (
        <rect
          {...pull}
          x={x + w - 4}
          y={zone.shape === 'box' ? y - d - 4 : y - 4}
          width={8}
          height={8}
          className="zone-corner"
          tabIndex={0}
          role="button"
          aria-label={`size of zone ${zone.name}`}
        />
      )}
    </g>
  )
}

/** Zones from the front, on a bed of a width: moved by their outline, pulled by their top and bottom. */
export function ZonesOnFront({ view, width }: { view: View; width: number }) {
  const { trial } = useTrial('trial')
  return (trial.document.zones ?? []).map(
    (zone, i) => zone.shape !== 'mesh' && <ZoneOnFront key={zone.id ?? i} index={i} view={view} width={width} />,
  )
}

function ZoneOnFront({ index, view, width }: { index: number; view: View; width: number }) {
  const { zone, change } = useZone(index)
  const own = () => ({ x: zone.x ?? 0, z: zone.z ?? 0, height: heightOf(zone) })
  const move = useHeld(view.scale, own, (start, right, up) =>
    change((now) => ({ ...now, ...(now.shape === 'heights' ? {} : { x: tenth(start.x + right) }), z: Math.max(0, tenth(start.z + up)) })),
  )
  const top = useHeld(view.scale, own, (start, _, up) =>
    change((now) => (now.shape === 'mesh' ? now : { ...now, height: Math.max(least, tenth(start.height + up)) })),
  )
  const bottom = useHeld(view.scale, own, (start, _, up) =>
    change((now) => {
      const by = Math.max(-start.z, Math.min(tenth(up), start.height - least))
      return now.shape === 'mesh' ? now : { ...now, z: tenth(start.z + by), height: tenth(start.height - by) }
    }),
  )
  if (zone.shape === 'mesh') return null
  const half = zone.shape === 'heights' ? width / 2 : halfOf(zone)[0]
  const middle = zone.shape === 'heights' ? width / 2 : (zone.x ?? 0)
  const [left, right] = [toX(view, middle - half), toX(view, middle + half)]
  const [high, low] = [toY(view, (zone.z ?? 0) + heightOf(zone)), toY(view, zone.z ?? 0)]
  const edge = (y: number) => ({
    x: (left + right) / 2 - 8,
    y: y - 3,
    width: 16,
    height: 6,
    className: 'zone-corner',
    tabIndex: 0,
    role: 'button',
  })
  return (
    <g className="zone-outline">
      <rect
        {...move}
        x={left}
        y={high}
        width={right - left}
        height={Math.max(1, low - high)}
        className="zone-grip"
        tabIndex={0}
        role="button"
        aria-label={`zone ${zone.name} from the front, to be moved`}
      />
      <rect {...top} {...edge(high)} aria-label={`top of zone ${zone.name}`} />
      <rect {...bottom} {...edge(low)} aria-label={`bottom of zone ${zone.name}`} />
    </g>
  )
}
