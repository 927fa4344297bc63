/** A point on the drawing or in the plane, [x, y]. */
export type XY = readonly [number, number]

/** From mm of the bed frame to pixels of the drawing. Y points up in the plane and down on the screen. */
export interface View {
  /** Pixels per mm. */
  scale: number
  /** Where the plane's zero lies on the drawing, px. */
  x0: number
  y0: number
  /** Whether Y points down on the screen too: a view from below. */
  fromBelow?: boolean
}

/** How Y runs on the screen. */
export const senseY = (view: View) => (view.fromBelow ? 1 : -1)

export const toX = (view: View, x: number) => view.x0 + x * view.scale
export const toY = (view: View, y: number) => view.y0 + senseY(view) * y * view.scale
export const fromX = (view: View, px: number) => (px - view.x0) / view.scale
export const fromY = (view: View, px: number) => (px - view.y0) / (senseY(view) * view.scale)

/** A scale with nothing to measure by would divide by zero: the least that is used, px per mm. */
const least = 1e-4

/** The view that shows a box of the plane as large as a box of the drawing allows, in its middle. */
export function fitted(
  plane: { x: number; y: number; width: number; depth: number },
  box: { x: number; y: number; width: number; height: number },
): View {
  const scale = Math.max(least, Math.min(box.width / plane.width, box.height / plane.depth))
  return {
    scale,
    x0: box.x + (box.width - plane.width * scale) / 2 - plane.x * scale,
    y0: box.y + (box.height + plane.depth * scale) / 2 + plane.y * scale,
  }
}

/** The step of a grid, mm, whose lines stand at least so many pixels apart. */
export function gridStep(scale: number, apart = 16): number {
  return [1, 2, 5, 10, 20, 50, 100, 200, 500, 1000].find((step) => step * scale >= apart) ?? 2000
}
