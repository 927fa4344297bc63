import { useQuery } from '@tanstack/react-query'
import { api, dataOf, type Card } from '../api/client'
import { boxOf, ringsPath } from './outline'
import { toX, toY, type View } from './view'

interface PlateUnderProps {
  plate: NonNullable<Card['envelope']>['plate']
  view: View
  width: number
  depth: number
}

/** The plate as its owner knows it, under the grid: a picture over the bed's box, or a mesh with its middle on the bed's. */
export function PlateUnder({ plate, view, width, depth }: PlateUnderProps) {
  const hash = plate?.kind === 'mesh' ? plate.file : undefined
  const { data: mesh } = useQuery({
    queryKey: ['mesh', hash],
    enabled: hash !== undefined,
    staleTime: Infinity,
    queryFn: async () => dataOf(await api.GET('/api/meshes/{hash}', { params: { path: { hash: hash! } } })),
  })
  if (plate?.kind === 'picture')
    return (
      <image
        href={`/api/pictures/${plate.file}`}
        x={toX(view, 0)}
        y={toY(view, depth)}
        width={width * view.scale}
        height={depth * view.scale}
        preserveAspectRatio="none"
        opacity={0.55}
      />
    )
  if (!mesh) return null
  const [minX, minY, maxX, maxY] = boxOf(mesh.outline.flat())
  const [dx, dy] = [width / 2 - (minX + maxX) / 2, depth / 2 - (minY + maxY) / 2]
  const rings = mesh.outline.map((ring) => ring.map(([x, y]) => [x! + dx, y! + dy]))
  return <path d={ringsPath(rings, view)} fill="var(--lit)" fillRule="evenodd" stroke="var(--ink-2)" strokeWidth="0.8" />
}
