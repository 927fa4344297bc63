import { useEffect, useLayoutEffect, useMemo } from 'react'
import { useThree } from '@react-three/fiber'
import { BufferAttribute, BufferGeometry, LineBasicMaterial } from 'three'
import { notPicked } from './notPicked'

/** Lines of plastic: pairs of points with their colours, from the bottom up. */
export interface Strands {
  /** x, y, z of both ends of every stretch. */
  points: Float32Array
  /** Red, green, blue of both ends of every stretch, 0 to 255. */
  colours: Uint8Array
  /** The first stretch of every layer, and the number of all. */
  starts: readonly number[]
}

/** The lines of some of the layers. */
export function StrandLines({ strands, from, to }: { strands: Strands; from: number; to: number }) {
  const invalidate = useThree((state) => state.invalidate)
  const geometry = useMemo(() => {
    const made = new BufferGeometry()
    made.setAttribute('position', new BufferAttribute(strands.points, 3))
    made.setAttribute('color', new BufferAttribute(strands.colours, 3, true))
    return made
  }, [strands])
  const material = useMemo(() => new LineBasicMaterial({ vertexColors: true }), [])
  useEffect(() => () => geometry.dispose(), [geometry])
  useEffect(() => () => material.dispose(), [material])
  useLayoutEffect(() => {
    const [first, end] = [strands.starts[from] ?? 0, strands.starts[to + 1] ?? 0]
    geometry.setDrawRange(2 * first, Math.max(0, 2 * (end - first)))
    invalidate()
  }, [geometry, strands, from, to, invalidate])
  return <lineSegments geometry={geometry} material={material} frustumCulled={false} raycast={notPicked} />
}
