import type { Bed, Outline } from '../api/client'
import { toX, toY, type View } from './view'

/** Width and depth of a bed as far as they are given. */
export function bedSize(bed: Bed | null | undefined): { width?: number; depth?: number } {
  if (!bed) return {}
  if (bed.shape === 'polygon') {
    const [minX, minY, maxX, maxY] = boxOf(bed.points)
    return { width: maxX - minX, depth: maxY - minY }
  }
  return { width: (bed as { width?: number | null }).width ?? undefined, depth: (bed as { depth?: number | null }).depth ?? undefined }
}

/** The outline of a bed in its own frame: the front-left corner of its bounding box is (0, 0). */
export function bedOutline(bed: Bed | null | undefined): Outline | undefined {
  const { width, depth } = bedSize(bed)
  if (!bed || !width || !depth) return undefined
  if (bed.shape === 'polygon') {
    const [minX, minY] = boxOf(bed.points)
    return { shape: 'polygon', points: bed.points.map(([x, y]) => [x! - minX, y! - minY]) }
  }
  return { shape: bed.shape === 'ellipse' ? 'ellipse' : 'rectangle', x: 0, y: 0, width, depth }
}

/** Least and greatest coordinates of points [x, y]. */
export function boxOf(points: readonly (readonly number[])[]): [number, number, number, number] {
  const xs = points.map((p) => p[0]!)
  const ys = points.map((p) => p[1]!)
  return [Math.min(...xs), Math.min(...ys), Math.max(...xs), Math.max(...ys)]
}

/** Bounding box of an outline: x, y, width, depth, mm. */
export function outlineBox(outline: Outline): { x: number; y: number; width: number; depth: number } {
  switch (outline.shape) {
    case 'circle':
      return { x: outline.x - outline.radius, y: outline.y - outline.radius, width: 2 * outline.radius, depth: 2 * outline.radius }
    case 'polygon': {
      const [minX, minY, maxX, maxY] = boxOf(outline.points)
      return { x: minX, y: minY, width: maxX - minX, depth: maxY - minY }
    }
    default: {
      const { x, y, width, depth } = outline as { x: number; y: number; width: number; depth: number }
      return { x, y, width, depth }
    }
  }
}

/** Rings as an SVG path. */
export function ringsPath(rings: readonly (readonly (readonly number[])[])[], view: View): string {
  return rings.map((ring) => `M${ring.map(([x, y]) => `${px(toX(view, x!))} ${px(toY(view, y!))}`).join('L')}Z`).join('')
}

/** An outline as an SVG path. */
export function outlinePath(outline: Outline, view: View): string {
  if (outline.shape === 'polygon') return ringsPath([outline.points], view)
  const { x, y, width, depth } = outlineBox(outline)
  const [left, top, w, h] = [toX(view, x), Math.min(toY(view, y), toY(view, y + depth)), width * view.scale, depth * view.scale]
  if (outline.shape === 'circle' || outline.shape === 'ellipse') {
    const arc = `a${px(w / 2)} ${px(h / 2)} 0 0 1`
    return `M${px(left)} ${px(top + h / 2)}${arc} ${px(w)} 0${arc} ${px(-w)} 0Z`
  }
  return `M${px(left)} ${px(top)}h${px(w)}v${px(h)}h${px(-w)}Z`
}

/** The corners of an outline; round ones as polygons. */
export function outlineRing(outline: Outline, sides = 72): [number, number][] {
  if (outline.shape === 'polygon') return outline.points.map(([x, y]) => [x!, y!])
  const { x, y, width, depth } = outlineBox(outline)
  if (outline.shape === 'rectangle')
    return [
      [x, y],
      [x + width, y],
      [x + width, y + depth],
      [x, y + depth],
    ]
  return Array.from({ length: sides }, (_, i) => {
    const angle = (2 * Math.PI * i) / sides
    return [x + (width / 2) * (1 + Math.cos(angle)), y + (depth / 2) * (1 + Math.sin(angle))]
  })
}

const px = (value: number) => Math.round(value * 100) / 100

/** An outline of another shape that covers the same place. */
export function reshapedOutline(outline: Outline, shape: Outline['shape']): Outline {
  const { x, y, width, depth } = outlineBox(outline)
  if (shape === 'circle') return { shape, x: x + width / 2, y: y + depth / 2, radius: Math.min(width, depth) / 2 }
  if (shape === 'polygon')
    return {
      shape,
      points: [
        [x, y],
        [x + width, y],
        [x + width, y + depth],
        [x, y + depth],
      ],
    }
  return { shape: 'rectangle', x, y, width, depth }
}
