import type { Filament, Recipe } from '../api/client'

/** A setting of a filament or a recipe, as its schedule shows it. */
export interface Row {
  pointer: string
  label: string
  needed?: boolean
  percent?: boolean
  /** A ratio that may be typed as percent. */
  ratio?: boolean
  /** What holds where nothing is typed. */
  otherwise?: string
  choices?: Record<string, string>
  /** Yes or no. */
  switch?: boolean
  /** Yes, no, or nobody has said. */
  open?: boolean
  text?: boolean
  code?: boolean
  pairs?: boolean
}

export interface Group {
  title: string
  rows: Row[]
}

const row = (pointer: string, label: string, more: Omit<Row, 'pointer' | 'label'> = {}): Row => ({ pointer, label, ...more })

export const patterns: Record<string, string> = {
  lines: 'lines',
  grid: 'grid',
  triangles: 'triangles',
  concentric: 'concentric',
  honeycomb: 'honeycomb',
  gyroid: 'gyroid',
  cubic: 'cubic',
  graded: 'denser near the skin',
}

export const recipeGroups: Group[] = [
  {
    title: 'Layers and lines',
    rows: [
      row('/layers/others', 'layer height', { needed: true }),
      row('/layers/first', 'first layer', { otherwise: 'as the others' }),
      row('/layers/onRung', 'heights on a rung', { switch: true }),
      row('/layers/rungs', 'layer height in rungs', { otherwise: 'in mm' }),
      row('/layers/firstRungs', 'first layer in rungs', { otherwise: 'in mm' }),
      row('/lineWidth', 'line width', { needed: true }),
      row('/lineWidthOfNozzle', 'line width, of the nozzle', { percent: true, otherwise: 'in mm' }),
      row('/widths/first', 'first layer’s lines', { percent: true, otherwise: '100' }),
      row('/widths/outerWall', 'outer wall', { percent: true, otherwise: '100' }),
      row('/widths/innerWall', 'inner walls', { percent: true, otherwise: '100' }),
      row('/widths/solid', 'solid fill', { percent: true, otherwise: '100' }),
      row('/widths/infill', 'infill', { percent: true, otherwise: '100' }),
      row('/widths/support', 'supports', { percent: true, otherwise: '100' }),
    ],
  },
  {
    title: 'Walls and shells',
    rows: [
      row('/walls', 'walls', { needed: true }),
      row('/wall/order', 'order', { choices: { 'inside-out': 'inside out', 'outside-in': 'outside in' } }),
      row('/wall/seam', 'seam', {
        choices: { aligned: 'aligned', back: 'at the back', sharpest: 'at the sharpest corner', scattered: 'scattered' },
      }),
      row('/wall/fillThin', 'single lines in thin places', { switch: true }),
      row('/topLayers', 'solid top', { needed: true }),
      row('/bottomLayers', 'solid bottom', { needed: true }),
      row('/top/oneDirection', 'top in one direction', { switch: true }),
      row('/top/smooth', 'second pass over the top', { switch: true }),
      row('/bridges', 'bridges', { switch: true }),
      row('/compensation/xy', 'XY compensation', { needed: true }),
      row('/compensation/firstLayer', 'first layer’s compensation', { needed: true }),
      row('/spiral', 'spiral', { switch: true }),
    ],
  },
  {
    title: 'Infill',
    rows: [row('/infill/density', 'infill', { needed: true, percent: true }), row('/infill/pattern', 'pattern', { choices: patterns })],
  },
  {
    title: 'Foot',
    rows: [
      row('/skirt/rounds', 'skirt rounds', { needed: true }),
      row('/skirt/gap', 'skirt gap', { needed: true }),
      row('/skirt/layers', 'skirt layers', { needed: true }),
      row('/skirt/leastLength', 'skirt’s least length', { needed: true }),
      row('/brim/place', 'brim', {
        choices: { none: 'none', outer: 'outside', inner: 'in holes', both: 'both', 'small-feet': 'where a foot is small' },
      }),
      row('/brim/width', 'brim width', { needed: true }),
      row('/brim/gap', 'brim gap', { needed: true }),
      row('/raft/layers', 'raft layers', { needed: true }),
      row('/raft/margin', 'raft margin', { needed: true }),
      row('/raft/gap', 'raft gap', { needed: true }),
    ],
  },
  {
    title: 'Supports',
    rows: [
      row('/supports/pattern', 'supports', {
        choices: { none: 'none', crossed: 'crossed lines', continuous: 'one line to and fro', branching: 'branching' },
      }),
      row('/supports/from', 'they stand on', { choices: { everywhere: 'bed and part', bed: 'the bed only' } }),
      row('/supports/angle', 'overhang angle', { needed: true }),
      row('/supports/density', 'density', { needed: true, percent: true }),
      row('/supports/interfaceLayers', 'interface layers', { needed: true }),
      row('/supports/interfaceSpacing', 'interface spacing', { needed: true }),
      row('/supports/gapZ', 'gap in Z', { needed: true }),
      row('/supports/gapXy', 'gap in X and Y', { needed: true }),
    ],
  },
  {
    title: 'Speeds',
    rows: [
      row('/speeds/outerWall', 'outer wall', { needed: true }),
      row('/speeds/innerWall', 'inner walls', { needed: true }),
      row('/speeds/solid', 'solid fill', { needed: true }),
      row('/speeds/infill', 'infill', { needed: true }),
      row('/speeds/top', 'top surface', { otherwise: 'as solid' }),
      row('/speeds/bridge', 'bridges', { needed: true }),
      row('/speeds/thin', 'thin lines', { needed: true }),
      row('/speeds/support', 'supports', { needed: true }),
      row('/speeds/interface', 'interface', { needed: true }),
      row('/speeds/travel', 'travel', { needed: true }),
      row('/speeds/firstLayer', 'first layer', { needed: true }),
      row('/speeds/slowLayers', 'slow layers', { needed: true }),
      row('/speeds/leastLayerTime', 'least layer time', { needed: true }),
      row('/speeds/least', 'least speed', { needed: true }),
    ],
  },
  {
    title: 'Accelerations',
    rows: [
      row('/accelerations/outerWall', 'outer wall', { otherwise: 'firmware' }),
      row('/accelerations/innerWall', 'inner walls', { otherwise: 'firmware' }),
      row('/accelerations/solid', 'solid fill', { otherwise: 'firmware' }),
      row('/accelerations/infill', 'infill and the rest', { otherwise: 'firmware' }),
      row('/accelerations/firstLayer', 'first layer', { otherwise: 'as above' }),
      row('/accelerations/travel', 'travel', { otherwise: 'firmware' }),
    ],
  },
  {
    title: 'Travel',
    rows: [
      row('/retraction/length', 'retraction', { otherwise: 'filament, head' }),
      row('/retraction/speed', 'retraction speed', { otherwise: 'filament, head' }),
      row('/retraction/lift', 'Z hop', { otherwise: 'filament, head' }),
      row('/retraction/leastTravel', 'none on travels below', { needed: true }),
      row('/retraction/stayInside', 'travels stay inside', { switch: true }),
    ],
  },
  {
    title: 'Several nozzles',
    rows: [
      row('/nozzleChanges/tower', 'tower, plastic a change', { needed: true }),
      row('/nozzleChanges/towerWidth', 'tower width', { needed: true }),
      row('/nozzleChanges/shield', 'shield against ooze', { switch: true }),
      row('/nozzleChanges/shieldGap', 'shield gap', { needed: true }),
      row('/nozzleChanges/retraction', 'retraction at a change', { otherwise: 'as before travels' }),
    ],
  },
  {
    title: 'Needs',
    rows: [
      row('/needs/nozzleFrom', 'nozzle from'),
      row('/needs/nozzleTo', 'nozzle to'),
      row('/needs/flow', 'flow of the hot end'),
      row('/needs/width', 'room, width'),
      row('/needs/depth', 'room, depth'),
      row('/needs/height', 'room, height'),
    ],
  },
  {
    title: 'File and notes',
    rows: [
      row('/fileName', 'file name', { text: true, otherwise: '{{ job.name }}-{{ filament.name }}' }),
      row('/notes', 'notes', { text: true }),
    ],
  },
]

const wear = { '': 'not said', low: 'as brass', middling: 'middling', high: 'as hardened steel' }
const feed = { '': 'any', direct: 'direct', 'long-tube': 'long tube' }

export const filamentGroups: Group[] = [
  {
    title: 'Spool',
    rows: [
      row('/material', 'material', { text: true }),
      row('/colour', 'colour', { text: true }),
      row('/diameter', 'diameter', { needed: true }),
      row('/density', 'density'),
      row('/pricePerKg', 'price'),
      row('/shrinkage', 'shrinkage', { percent: true, otherwise: '0' }),
      row('/abrasive', 'wears brass', { open: true }),
      row('/warmChamber', 'wants a warm chamber', { open: true }),
    ],
  },
  {
    title: 'Nozzle',
    rows: [
      row('/nozzle/first', 'first layer', { needed: true }),
      row('/nozzle/others', 'other layers', { needed: true }),
      row('/nozzle/standby', 'standby'),
      row('/nozzle/oozesFrom', 'oozes from'),
      row('/nozzle/windowFrom', 'window from'),
      row('/nozzle/windowTo', 'window to'),
      row('/nozzle/tolerance', 'tolerance', { otherwise: '10' }),
    ],
  },
  { title: 'Bed', rows: [row('/bed/first', 'first layer', { needed: true }), row('/bed/others', 'other layers', { needed: true })] },
  {
    title: 'Flow',
    rows: [
      row('/flow', 'flow', { ratio: true, otherwise: '1' }),
      row('/maxFlow', 'melts up to'),
      row('/pressureCompensation', 'pressure compensation'),
    ],
  },
  {
    title: 'Fan',
    rows: [
      row('/fan/share', 'fan', { needed: true, percent: true }),
      row('/fan/fromLayer', 'from layer', { needed: true }),
      row('/fan/bridge', 'on bridges', { percent: true, otherwise: 'as elsewhere' }),
      row('/fan/curve', 'by layer time: s share, …', { pairs: true }),
    ],
  },
  {
    title: 'Departures from the head',
    rows: [
      row('/retraction/length', 'retraction', { otherwise: 'head’s' }),
      row('/retraction/speed', 'retraction speed', { otherwise: 'head’s' }),
      row('/retraction/lift', 'Z hop', { otherwise: 'head’s' }),
      row('/retraction/wipe', 'wipe', { otherwise: 'head’s' }),
    ],
  },
  {
    title: 'Needs',
    rows: [
      row('/needs/nozzleFrom', 'nozzle from'),
      row('/needs/nozzleTo', 'nozzle to'),
      row('/needs/wear', 'nozzle’s wear rating', { choices: wear }),
      row('/needs/feed', 'feed', { choices: feed }),
      row('/needs/flow', 'flow of the hot end'),
      row('/needs/chamber', 'chamber'),
    ],
  },
  {
    title: 'Routines and notes',
    rows: [
      row('/start', 'after the start routine', { code: true }),
      row('/end', 'before the end routine', { code: true }),
      row('/notes', 'notes', { text: true }),
    ],
  },
]

/** What one part may have of its own, and with `zone` what a zone may. */
export const departures = (zone: boolean): Row[] =>
  recipeGroups
    .flatMap((group) => group.rows)
    .map((r) =>
      r.pointer.startsWith('/speeds/')
        ? { ...r, label: `${r.label} speed` }
        : r.pointer.startsWith('/widths/')
          ? { ...r, label: `${r.label} width` }
          : r,
    )
    .filter(({ pointer }) =>
      (zone ? ofZones : [...ofZones, ...ofParts]).some((allowed) => pointer === allowed || pointer.startsWith(`${allowed}/`)),
    )

const ofZones = [
  '/walls',
  '/topLayers',
  '/bottomLayers',
  '/top',
  '/bridges',
  '/infill',
  '/widths',
  ...['outerWall', 'innerWall', 'solid', 'infill', 'top', 'bridge', 'thin'].map((k) => `/speeds/${k}`),
]
const ofParts = ['/wall', '/supports', '/brim', '/compensation', '/speeds/support', '/speeds/interface']

export type Settable = Filament | Recipe
