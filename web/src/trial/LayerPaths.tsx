import { memo } from 'react'
import { toX, toY, type View } from '../drawing/view'
import { pathKinds, type Layer, type LayerPath, type PathKind } from './layers'

/** The lines of a layer, pale where they are older than the last change; kinds are told by weight, dash and colour together. */
export const LayerPaths = memo(function LayerPaths({ layer, view, old }: { layer: Layer; view: View; old: boolean }) {
  return (
    <g className={old ? 'layer-paths old' : 'layer-paths'}>
      {[...pathKinds].reverse().map((kind) => {
        const paths = layer.paths.filter((path) => path.kind === kind)
        return paths.length > 0 && <path key={kind} d={paths.map((path) => svgPath(path, view)).join('')} className={className(kind)} />
      })}
    </g>
  )
})

/** What the kinds of line on a layer look like. */
export function LayerLegend({ layer, x, y }: { layer: Layer; x: number; y: number }) {
  const kinds = pathKinds.filter((kind) => layer.paths.some((path) => path.kind === kind))
  return (
    <g className="layer-paths" aria-label="kinds of line">
      {kinds.map((kind, i) => (
        <g key={kind}>
          <path d={`M${x} ${y + 20 * i}h26`} className={className(kind)} />
          <text x={x + 34} y={y + 20 * i + 4}>
            {kind}
          </text>
        </g>
      ))}
    </g>
  )
}

const className = (kind: PathKind) => kind.replaceAll(' ', '-')

function svgPath({ points, closed }: LayerPath, view: View): string {
  let path = ''
  for (let i = 0; i < points.length; i += 2)
    path += `${i === 0 ? 'M' : 'L'}${toX(view, points[i]!).toFixed(1)} ${toY(view, points[i + 1]!).toFixed(1)}`
  return closed ? `${path}Z` : path
}
