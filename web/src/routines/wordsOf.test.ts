import { expect, test } from 'vitest'
import { wordsOf } from './wordsOf'

test.each([
  ['M104 S{{ heat.standby }}', 'M104', ['heat.standby']],
  ['  g1 X{{ bed.max_x | minus: 5 }} Y{{bed.max_x}} F{{ speed.travel | feed }} ; to heat.nozzle', 'G1', ['bed.max_x', 'speed.travel']],
  ['{% if heat.bed > 0 %}M190 S{{ heat.bed }}{% endif %}', 'M190', ['heat.bed']],
  ['START_PRINT BED={{ heat.bed }}', 'START_PRINT', ['heat.bed']],
  ['M117 {{ "heat.bed" }}', 'M117', []],
  ['N12 M105*36', 'M105', []],
  ['; M104 S{{ heat.nozzle }}', undefined, []],
  ['', undefined, []],
] as const)('%s', (line, command, names) => expect(wordsOf(line)).toEqual({ command, names }))
