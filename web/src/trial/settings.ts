import type { Row } from '../settings/rows'

export const recipeFields: Row[] = [
  { pointer: '/layers/others', label: 'layer height', needed: true },
  { pointer: '/layers/first', label: 'first layer' },
  { pointer: '/lineWidth', label: 'line width', needed: true },
  { pointer: '/walls', label: 'walls', needed: true },
  { pointer: '/topLayers', label: 'solid top', needed: true },
  { pointer: '/bottomLayers', label: 'solid bottom', needed: true },
  { pointer: '/infill/density', label: 'infill', needed: true, percent: true },
  { pointer: '/skirt/rounds', label: 'skirt rounds', needed: true },
  { pointer: '/skirt/gap', label: 'skirt gap', needed: true },
  { pointer: '/speeds/outerWall', label: 'outer wall', needed: true },
  { pointer: '/speeds/innerWall', label: 'inner wall', needed: true },
  { pointer: '/speeds/solid', label: 'solid fill', needed: true },
  { pointer: '/speeds/infill', label: 'infill speed', needed: true },
  { pointer: '/speeds/firstLayer', label: 'first layer speed', needed: true },
  { pointer: '/speeds/travel', label: 'travel', needed: true },
  { pointer: '/retraction/length', label: 'retraction', otherwise: "head's" },
]

export const filamentFields: Row[] = [
  { pointer: '/nozzle/first', label: 'nozzle, first layer', needed: true },
  { pointer: '/nozzle/others', label: 'nozzle', needed: true },
  { pointer: '/nozzle/standby', label: 'nozzle, standby' },
  { pointer: '/bed/first', label: 'bed, first layer', needed: true },
  { pointer: '/bed/others', label: 'bed', needed: true },
  { pointer: '/diameter', label: 'diameter', needed: true },
  { pointer: '/density', label: 'density' },
  { pointer: '/pricePerKg', label: 'price' },
  { pointer: '/flow', label: 'flow', ratio: true, otherwise: '1' },
  { pointer: '/maxFlow', label: 'melts up to' },
  { pointer: '/fan/share', label: 'fan', needed: true, percent: true },
  { pointer: '/fan/fromLayer', label: 'fan from layer', needed: true },
]
