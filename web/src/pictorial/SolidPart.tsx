import { useEffect, useLayoutEffect, useMemo } from 'react'
import { useThree, type ThreeEvent } from '@react-three/fiber'
import { BufferAttribute, BufferGeometry, Matrix4, Vector3, type Color, type Intersection, type Mesh, type Raycaster } from 'three'
import { MeshBVH, acceleratedRaycast } from 'three-mesh-bvh'
import { facesNear } from './brush'
import type { Inks } from './inks'
import { directionsOf, type Look } from './look'
import { notPicked } from './notPicked'
import { bedLevel, edgesMaterial, facesMaterial, uncut } from './shaders'
import { edgesOf, placing, stood, type Solid, type Stance } from './solid'

/** A face of a part under the pointer. */
export interface FaceHit {
  /** Its number in the file. */
  face: number
  /** Where, mm, bed frame. */
  at: readonly [number, number, number]
}

interface SolidPartProps {
  solid: Solid
  stance: Stance
  place: { x: number; y: number; z: number; turn: number }
  look: Look
  inks: Inks
  /** Of its edges. */
  edge: Color
  /** Faces of the file that are marked, with the tint of each mark. */
  marks: readonly { faces: readonly number[]; tint: Color }[]
  cut: number | undefined
  /** Told of a press on it that may become a drag; whether it is taken. */
  onHold: (event: PointerEvent) => boolean
  /** Told of a click on a face. */
  onPick: (hit: FaceHit) => void
  /** Radius of the brush, mm; undefined where nothing is painted. */
  brush: number | undefined
  /** Told of the faces that the brush comes over while it is held, and whether a stroke begins there. */
  onStroke: (faces: readonly number[], begins: boolean) => void
}

/** Its faces as a tree, made when they are asked for first; the order of the faces stays. */
const treeOf = (geometry: BufferGeometry) => (geometry.boundsTree ??= new MeshBVH(geometry, { indirect: true })) as MeshBVH

function cast(this: Mesh, raycaster: Raycaster, hits: Intersection[]) {
  treeOf(this.geometry)
  acceleratedRaycast.call(this, raycaster, hits)
}

/** A part in flat tints with edges in ink, cut at a height. */
export function SolidPart({ solid, stance, place, look, inks, edge, marks, cut, onHold, onPick, brush, onStroke }: SolidPartProps) {
  const invalidate = useThree((state) => state.invalidate)
  const { scale, tilt } = stance
  const corners = useMemo(
    () => stood(solid.corners, { scale: { x: scale.x, y: scale.y, z: scale.z, mirrored: scale.mirrored }, tilt: { x: tilt.x, y: tilt.y } }),
    [solid, scale.x, scale.y, scale.z, scale.mirrored, tilt.x, tilt.y],
  )
  const faces = useMemo(() => {
    const geometry = new BufferGeometry()
    geometry.setAttribute('position', new BufferAttribute(corners, 3))
    geometry.setIndex(new BufferAttribute(new Uint32Array(scale.mirrored ? turnedRound(solid.faces) : solid.faces), 1))
    return geometry
  }, [solid, corners, scale.mirrored])
  const edges = useMemo(() => {
    const { ends, left, right } = edgesOf(corners, solid.faces, solid.edges)
    const geometry = new BufferGeometry()
    geometry.setAttribute('position', new BufferAttribute(ends, 3))
    geometry.setAttribute('left', new BufferAttribute(left, 3))
    geometry.setAttribute('right', new BufferAttribute(right, 3))
    return geometry
  }, [solid, corners])
  const [tints, lines] = useMemo(() => [facesMaterial(), edgesMaterial()], [])
  useEffect(() => () => faces.dispose(), [faces])
  useEffect(() => () => edges.dispose(), [edges])
  useEffect(
    () => () => {
      tints.dispose()
      lines.dispose()
    },
    [tints, lines],
  )
  const { sin, cos, dx, dy, dz } = useMemo(
    () => placing(corners, { x: place.x, y: place.y, z: place.z, turn: place.turn }),
    [corners, place.x, place.y, place.z, place.turn],
  )
  const matrix = useMemo(() => new Matrix4().set(cos, -sin, 0, dx, sin, cos, 0, dy, 0, 0, 1, dz, 0, 0, 0, 1), [sin, cos, dx, dy, dz])
  useLayoutEffect(() => {
    const { light, shade, hatch, cut: height } = tints.uniforms
    light!.value = inks.lit
    shade!.value = inks.lit.clone().lerp(inks.ink, 0.22)
    hatch!.value = inks.ink
    height!.value = cut ?? uncut
    lines.uniforms.ink!.value = edge
    lines.uniforms.cut!.value = cut ?? uncut
    lines.uniforms.toward!.value = new Vector3(...directionsOf(look).toward)
    invalidate()
  }, [tints, lines, inks, edge, cut, look, invalidate])
  const hitOf = (event: ThreeEvent<MouseEvent>): FaceHit | undefined => {
    // a ray may meet what is cut away, or lies below the bed, first
    const isDrawn = (z: number) => z <= (cut ?? uncut) && z >= bedLevel
    const hit = event.intersections.find((one) => one.eventObject === event.eventObject && isDrawn(one.point.z))
    return hit && typeof hit.faceIndex === 'number'
      ? { face: solid.numbers?.[hit.faceIndex] ?? hit.faceIndex, at: hit.point.toArray() }
      : undefined
  }
  const stroke = (event: ThreeEvent<PointerEvent>, begins: boolean) => {
    const hit = brush !== undefined && (event.buttons & 1) === 1 ? hitOf(event) : undefined
    if (!hit) return
    event.stopPropagation()
    const centre = new Vector3(...hit.at).applyMatrix4(matrix.clone().invert())
    const near = facesNear(treeOf(faces), centre, brush!)
    onStroke(
      near.map((f) => solid.numbers?.[f] ?? f),
      begins,
    )
  }
  return (
    <group matrixAutoUpdate={false} matrix={matrix}>
      <mesh
        geometry={faces}
        material={tints}
        frustumCulled={false}
        raycast={cast}
        onClick={(event) => {
          const hit = event.delta < 4 && brush === undefined ? hitOf(event) : undefined
          if (!hit) return
          event.stopPropagation()
          onPick(hit)
        }}
        onPointerDown={(event) => {
          stroke(event, true)
          if (brush === undefined && event.button === 0 && hitOf(event) && onHold(event.nativeEvent)) event.stopPropagation()
        }}
        onPointerMove={brush === undefined ? undefined : (event) => stroke(event, false)}
      />
      <lineSegments geometry={edges} material={lines} frustumCulled={false} raycast={notPicked} />
      {marks.map((mark, i) => (
        <MarkedFaces key={i} solid={solid} corners={corners} {...mark} cut={cut} />
      ))}
    </group>
  )
}

function turnedRound(faces: Int32Array): Int32Array {
  const to = faces.slice()
  for (let f = 0; f < to.length; f += 3) [to[f + 1], to[f + 2]] = [to[f + 2]!, to[f + 1]!]
  return to
}

/** Faces that carry a mark, in its tint over their own. */
function MarkedFaces({
  solid,
  corners,
  faces,
  tint,
  cut,
}: {
  solid: Solid
  corners: Float32Array
  faces: readonly number[]
  tint: Color
  cut: number | undefined
}) {
  const geometry = useMemo(() => {
    const wanted = new Set(faces)
    const drawn: number[] = []
    for (let f = 0; f < solid.faces.length / 3; f++)
      if (wanted.has(solid.numbers?.[f] ?? f)) drawn.push(solid.faces[3 * f]!, solid.faces[3 * f + 1]!, solid.faces[3 * f + 2]!)
    const made = new BufferGeometry()
    made.setAttribute('position', new BufferAttribute(corners, 3))
    made.setIndex(drawn)
    return made
  }, [solid, corners, faces])
  const material = useMemo(() => {
    const made = facesMaterial()
    made.polygonOffsetFactor = 0
    made.polygonOffsetUnits = 0
    return made
  }, [])
  useEffect(() => () => geometry.dispose(), [geometry])
  useEffect(() => () => material.dispose(), [material])
  useLayoutEffect(() => {
    material.uniforms.light!.value = tint
    material.uniforms.shade!.value = tint
    material.uniforms.hatch!.value = tint
    material.uniforms.cut!.value = cut ?? uncut
  }, [material, tint, cut])
  return <mesh geometry={geometry} material={material} frustumCulled={false} raycast={notPicked} />
}
