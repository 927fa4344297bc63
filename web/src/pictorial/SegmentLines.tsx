import { useEffect, useMemo } from 'react'
import { useThree } from '@react-three/fiber'
import { BufferAttribute, BufferGeometry, LineBasicMaterial, type Color } from 'three'
import { notPicked } from './notPicked'

/** Thin lines in one colour: pairs of points x, y, z. */
export function SegmentLines({ points, colour }: { points: Float32Array; colour: Color }) {
  const invalidate = useThree((state) => state.invalidate)
  const geometry = useMemo(() => {
    const made = new BufferGeometry()
    made.setAttribute('position', new BufferAttribute(points, 3))
    return made
  }, [points])
  const material = useMemo(() => new LineBasicMaterial({ color: colour }), [colour])
  useEffect(() => {
    invalidate()
    return () => geometry.dispose()
  }, [geometry, invalidate])
  useEffect(() => () => material.dispose(), [material])
  return <lineSegments geometry={geometry} material={material} frustumCulled={false} raycast={notPicked} />
}
