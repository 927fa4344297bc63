/** What draws space in this browser; undefined where nothing does. */
export type DrawnWith = 'graphics processor' | 'processor' | undefined

let known: { by: DrawnWith } | undefined

/** Asks the browser once. A processor alone smooths no edges in time: the first picture took a second longer with smooth ones. */
export function drawnWith(): DrawnWith {
  return (known ??= { by: asked() }).by
}

function asked(): DrawnWith {
  const space = document.createElement('canvas').getContext('webgl2')
  if (!space) return undefined
  const told = space.getExtension('WEBGL_debug_renderer_info')
  const name = String(space.getParameter(told ? told.UNMASKED_RENDERER_WEBGL : space.RENDERER))
  return /swiftshader|llvmpipe|software/i.test(name) ? 'processor' : 'graphics processor'
}
