import { describe, expect, it } from 'vitest'
import { fieldAt, limitsOf, typesOf, variants, type SchemaNode } from './schema'

const schema: SchemaNode & { $defs: Record<string, SchemaNode> } = {
  type: 'object',
  properties: {
    name: { type: 'string', maxLength: 120 },
    bed: {
      anyOf: [
        { properties: { shape: { enum: ['rectangle'] }, width: { type: 'number', minimum: 1, 'x-unit': 'mm', title: 'bed width' } } },
        { properties: { shape: { enum: ['polygon'] }, points: { type: 'array', items: { items: { type: 'number' } } } } },
      ],
    },
    nozzles: { type: ['array', 'null'], items: { $ref: '#/$defs/nozzle' } },
    first: { $ref: '#/$defs/nozzle', title: 'first nozzle' },
    'a/b': { type: 'boolean' },
    sources: { additionalProperties: { properties: { kind: { enum: ['measured'] } } } },
  },
  $defs: {
    nozzle: {
      title: 'nozzle',
      properties: { walls: { type: ['integer', 'null'], exclusiveMinimum: 0, maximum: 9 }, self: { $ref: '#/properties/bed' } },
    },
  },
}

describe('fields of a schema', () => {
  it.each([
    ['/name', { type: 'string', maxLength: 120 }],
    ['/bed/width', { type: 'number', minimum: 1, 'x-unit': 'mm', title: 'bed width' }],
    ['/bed/points/3/1', { type: 'number' }],
    ['/nozzles/7/walls', { type: ['integer', 'null'], exclusiveMinimum: 0, maximum: 9 }],
    ['/nozzles/-/walls', { type: ['integer', 'null'], exclusiveMinimum: 0, maximum: 9 }],
    ['/nozzles/0/self/width', { type: 'number', minimum: 1, 'x-unit': 'mm', title: 'bed width' }],
    ['/a~1b', { type: 'boolean' }],
    ['/sources/~1name/kind', { enum: ['measured'] }],
  ])('finds %s', (pointer, field) => expect(fieldAt(schema, pointer)).toEqual(field))

  it.each(['/nothing', '/name/more', '/nozzles/0/nothing', '/bed/depth'])('finds nothing at %s', (pointer) =>
    expect(fieldAt(schema, pointer)).toBeUndefined(),
  )

  it('lets what stands beside a reference go before what it leads to', () => {
    expect(fieldAt(schema, '/first')?.title).toBe('first nozzle')
    expect(fieldAt(schema, '/nozzles/0')?.title).toBe('nozzle')
  })

  it('lists every kind that a node may be', () => expect(variants(schema, schema.properties!.bed!)).toHaveLength(3))
})

describe('limits of a field', () => {
  it('are those that the schema says', () =>
    expect(limitsOf(fieldAt(schema, '/nozzles/0/walls'))).toEqual({
      label: undefined,
      unit: undefined,
      above: 0,
      least: undefined,
      most: 9,
      whole: true,
    }))
  it('are none where there is no field', () => expect(limitsOf(undefined)).toEqual({}))
  it('know one type and several', () =>
    expect([typesOf({ type: 'number' }), typesOf({ type: ['number', 'null'] }), typesOf({})]).toEqual([['number'], ['number', 'null'], []]))
})
