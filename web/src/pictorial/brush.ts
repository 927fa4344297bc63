import { Box3, Sphere, Triangle, Vector3 } from 'three'
import type { MeshBVH } from 'three-mesh-bvh'

/** Faces that a brush of a radius touches about a point, in the frame of the corners. */
export function facesNear(tree: MeshBVH, centre: Vector3, radius: number): number[] {
  const ball = new Sphere(centre, radius)
  const [near, nearest] = [[] as number[], new Vector3()]
  tree.shapecast({
    intersectsBounds: (box: Box3) => ball.intersectsBox(box),
    intersectsTriangle: (triangle: Triangle, face: number) => {
      triangle.closestPointToPoint(centre, nearest)
      if (nearest.distanceTo(centre) <= radius) near.push(face)
      return false
    },
  })
  return near
}
