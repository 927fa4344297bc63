import { expect, it } from 'vitest'
import { guideFor } from './guide'

it.each([
  ['/head/nozzles/0/diameter', 'Bore of the nozzle'],
  ['/head/nozzles/12/filamentDiameter', 'Filament'],
  ['/head/nozzles/1/offset/x', 'Offset of a nozzle'],
  ['/head/nozzles/0/feed/length', 'Feed'],
  ['/head/nozzles/0/retraction/length', 'Pulling back'],
  ['/head/nozzles/0/maxFlow', 'Melting limit'],
  ['/head/bodies/3/underside', 'Underside above the tip'],
  ['/head/bodies/3/outline/x', 'Outline of a body, from below'],
  ['/head/beams/0/underside', 'Underside of a beam'],
  ['/head/beams/0/near', 'A beam across the machine'],
  ['/head/probe/z', 'Z offset'],
  ['/head/probe/unevenness', 'Unevenness of the bed'],
  ['/head/probe/x', 'Probe'],
  ['/head/carriages/0/from', 'Two carriages'],
  ['/head/leastDistance', 'Two carriages'],
  ['/head/fans/0/number', 'Fans'],
  ['/head/clearance', 'Clearance'],
  [undefined, 'Outline of a body, from below'],
  ['/envelope/height', 'Outline of a body, from below'],
])('%s is told how to take', (pointer, title) => {
  const guide = guideFor(pointer)
  expect(guide.title).toBe(title)
  expect(guide.steps.every((step) => /[.:?)]$/.test(step))).toBe(true)
})
