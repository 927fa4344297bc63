import type { Color } from 'three'
import { cividis } from '../drawing/cividis'
import type { Ink, Inks } from '../pictorial/inks'
import type { Strands } from '../pictorial/StrandLines'
import { measures, shareOf, slackOf, type Drawing } from './drawnBy'
import type { Layer, LayerPath, PathKind } from './layers'

/** The colour of a kind of line, the same as on the plan. */
const inkOf: Record<PathKind, Ink> = {
  skirt: 'ink-2',
  'outer wall': 'ink',
  'inner wall': 'slate',
  'solid fill': 'ochre',
  infill: 'moss',
  top: 'ochre',
  bridge: 'madder',
  'thin line': 'ink',
  'second pass': 'ochre',
  support: 'ink-2',
  interface: 'slate',
  brim: 'ink-2',
  raft: 'ink-2',
  tower: 'moss',
  shield: 'moss',
}

/** What colours the lines of layers in space. */
export interface Colouring {
  inks: Inks
  scheme: 'light' | 'dark'
  drawing: Drawing
  span: readonly [number, number] | undefined
}

/** The lines of layers in space, from the bottom up. */
export function strandsOf(layers: readonly Layer[], colouring: Colouring): Strands {
  const stretches = layers.map((layer) => layer.paths.reduce((sum, path) => sum + stretchesOf(path), 0))
  const starts = [0]
  for (const count of stretches) starts.push(starts.at(-1)! + count)
  const points = new Float32Array(6 * starts.at(-1)!)
  const colours = new Uint8Array(6 * starts.at(-1)!)
  let at = 0
  for (const layer of layers)
    for (const path of layer.paths) {
      const [{ points: from }, { top }] = [path, layer]
      const [r, g, b] = colourOf(path, layer, colouring)
      for (let i = 0; i < stretchesOf(path); i++) {
        const [a, z] = [2 * i, (2 * i + 2) % from.length]
        points.set([from[a]!, from[a + 1]!, top, from[z]!, from[z + 1]!, top], at)
        colours.set([r, g, b, r, g, b], at)
        at += 6
      }
    }
  return { points, colours, starts }
}

function colourOf(path: LayerPath, layer: Layer, { inks, scheme, drawing: { by, within }, span }: Colouring): [number, number, number] {
  if (by === 'kind' || !span) return bytesOf(inks[inkOf[path.kind]])
  const share = shareOf(measures[by].of(path, layer), span, within, slackOf(by))
  return share === undefined ? bytesOf(inks.madder) : cividis(share, scheme)
}

/** Stretches that are turned without delay where nothing but the processor draws. */
const quick = 60_000

/** Fewer of the lines, for as long as the view is turned: outer walls of every so many layers. */
export function coarse(layers: readonly Layer[]): Layer[] {
  const walls = layers.map((layer) => ({ ...layer, paths: layer.paths.filter((path) => path.kind === 'outer wall') }))
  const count = walls.reduce((sum, layer) => sum + layer.paths.reduce((all, path) => all + stretchesOf(path), 0), 0)
  const every = Math.ceil(count / quick)
  return walls.map((layer, i) => (i % every === 0 ? layer : { ...layer, paths: [] }))
}

const stretchesOf = ({ points, closed }: { points: Float32Array; closed: boolean }) => points.length / 2 - (closed ? 0 : 1)
const bytesOf = (colour: Color): [number, number, number] => [255 * colour.r, 255 * colour.g, 255 * colour.b]
