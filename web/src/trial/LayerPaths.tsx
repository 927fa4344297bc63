import { memo, useMemo } from 'react'
import { cividis, cssOf, shades } from '../drawing/cividis'
import { useScheme } from '../drawing/useScheme'
import { toX, toY, type View } from '../drawing/view'
import { crossingsOf, measures, shareOf, slackOf, type Drawing } from './drawnBy'
import { pathKinds, type Layer, type PathKind } from './layers'
import type { Step } from './useStep'

interface LayerPathsProps {
  layer: Layer
  view: View
  old: boolean
  drawing: Drawing
  /** Of the values of all layers. */
  span: readonly [number, number] | undefined
  /** The program line that is looked at: what comes behind it is drawn as not laid yet. */
  upTo?: number
}

/** The lines of a layer, pale where they are older than the last change. */
export const LayerPaths = memo(function LayerPaths({ upTo, ...props }: LayerPathsProps) {
  const { layer, old } = props
  const done = useMemo(
    () => (upTo === undefined ? layer : { ...layer, paths: layer.paths.filter(({ last }) => last <= upTo) }),
    [layer, upTo],
  )
  const ahead = useMemo(() => ({ ...layer, paths: layer.paths.filter(({ last }) => upTo !== undefined && last > upTo) }), [layer, upTo])
  return (
    <>
      {upTo !== undefined && <DrawnPaths {...props} layer={ahead} old />}
      <DrawnPaths {...props} layer={done} old={old} />
    </>
  )
})

/** How far the line of plastic under way has come. */
export function LaidSoFar({ step: { laid, lines, at, chosen }, view }: { step: Step; view: View }) {
  const move = chosen ? lines.get(at)?.path : undefined
  return (
    <g className="laid-so-far">
      {laid.length > 2 && <path d={svgPath({ points: laid, closed: false }, view)} />}
      {move && <path d={svgPath({ points: [move[0]!, move[1]!, move[3]!, move[4]!], closed: false }, view)} className="under-way" />}
    </g>
  )
}

function DrawnPaths({ layer, view, old, drawing, span }: Omit<LayerPathsProps, 'upTo'>) {
  return (
    <g className={old ? 'layer-paths old' : 'layer-paths'}>
      {drawing.by === 'kind' || !span ? (
        <ByKind layer={layer} view={view} />
      ) : (
        <ByValue layer={layer} view={view} drawing={drawing} span={span} />
      )}
      <Marks layer={layer} view={view} drawing={drawing} />
    </g>
  )
}

/** Kinds are told by weight, dash and colour together. */
function ByKind({ layer, view }: { layer: Layer; view: View }) {
  return [...pathKinds].reverse().map((kind) => {
    const paths = layer.paths.filter((path) => path.kind === kind)
    return paths.length > 0 && <path key={kind} d={paths.map((path) => svgPath(path, view)).join('')} className={className(kind)} />
  })
}

/** Values on one even scale; what lies outside the range that is looked at stands out. */
function ByValue({
  layer,
  view,
  drawing: { by, within },
  span,
}: Omit<LayerPathsProps, 'old' | 'span'> & { span: readonly [number, number] }) {
  const scheme = useScheme()
  if (by === 'kind') return null
  const drawn = new Map<number, string>()
  for (const path of layer.paths) {
    const share = shareOf(measures[by].of(path, layer), span, within, slackOf(by))
    const shade = share === undefined ? -1 : Math.round(share * (shades - 1))
    drawn.set(shade, (drawn.get(shade) ?? '') + svgPath(path, view))
  }
  return [...drawn]
    .sort(([a], [b]) => b - a)
    .map(([shade, d]) => (
      <path
        key={shade}
        d={d}
        className={shade < 0 ? 'outside' : 'valued'}
        style={shade < 0 ? undefined : { stroke: cssOf(cividis(shade / (shades - 1), scheme)) }}
      />
    ))
}

function Marks({ layer, view, drawing: { marks } }: { layer: Layer; view: View; drawing: Drawing }) {
  const at = (x: number, y: number) => `${toX(view, x).toFixed(1)} ${toY(view, y).toFixed(1)}`
  const has = (mark: Drawing['marks'][number]) => marks.includes(mark)
  const seams = layer.paths.filter((path) => path.kind === 'outer wall' && path.closed)
  const pulled = layer.paths.filter((path) => path.pulledBack && path.way.length > 0)
  return (
    <>
      {has('travels') && (
        <path d={layer.paths.map(({ way }) => svgPath({ points: way, closed: false }, view)).join('')} className="travels" />
      )}
      {has('seams') && <path d={seams.map(({ points }) => `M${at(points[0]!, points[1]!)}m-3 0h6m-3 -3v6`).join('')} className="seams" />}
      {has('retractions') && (
        <path d={pulled.map(({ way }) => `M${at(way[0]!, way[1]!)}m0 -4l3.5 6h-7z`).join('')} className="retractions" />
      )}
      {has('crossings') && (
        <path
          d={crossingsOf(layer)
            .map(([ax, ay, bx, by]) => `M${at(ax!, ay!)}L${at(bx!, by!)}`)
            .join('')}
          className="crossings"
        />
      )}
    </>
  )
}

/** What the kinds of line on a layer look like. */
export function LayerLegend({ layer }: { layer: Layer }) {
  const kinds = pathKinds.filter((kind) => layer.paths.some((path) => path.kind === kind))
  return (
    <ul className="kinds-of-line" aria-label="kinds of line">
      {kinds.map((kind) => (
        <li key={kind}>
          <svg className="layer-paths" width="26" height="10" aria-hidden="true">
            <path d="M0 5h26" className={className(kind)} />
          </svg>
          {kind}
        </li>
      ))}
    </ul>
  )
}

const className = (kind: PathKind) => kind.replaceAll(' ', '-')

function svgPath({ points, closed }: { points: ArrayLike<number>; closed: boolean }, view: View): string {
  let path = ''
  for (let i = 0; i < points.length; i += 2)
    path += `${i === 0 ? 'M' : 'L'}${toX(view, points[i]!).toFixed(1)} ${toY(view, points[i + 1]!).toFixed(1)}`
  return closed ? `${path}Z` : path
}
