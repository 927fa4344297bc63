import { expect, it } from 'vitest'
import { answers, grouped, settingsOf } from './description'
import type { SchemaNode } from './schema'

/** A document as the server describes it: one setting of every kind. */
const described: SchemaNode = {
  type: 'object',
  properties: {
    name: { type: 'string', title: 'name' },
    walls: { type: 'integer', title: 'walls', 'x-group': 'Shells', 'x-also': 'perimeters', 'x-departs': 'zone', 'x-pages': ['trial'] },
    density: {
      type: 'number',
      title: 'infill',
      minimum: 0,
      maximum: 1,
      'x-group': 'Inside',
      'x-look': 'percent',
      'x-says': 'Stronger.',
      'x-tends': { strength: 2, time: -3 },
    },
    speeds: {
      type: 'object',
      'x-group': 'Speeds',
      'x-otherwise': 'as the others',
      properties: {
        outer: { type: 'number', title: 'outer wall speed', 'x-short': 'outer wall', 'x-unit': 'mm/s' },
        top: { type: ['number', 'null'], title: 'top speed' },
        least: { type: ['number', 'null'], title: 'least speed', 'x-otherwise': '10', 'x-needed': true },
      },
    },
    seam: { enum: ['back', 'sharpest'], title: 'seam', 'x-group': 'Shells', 'x-words': { back: 'at the back', sharpest: 'sharpest' } },
    feed: { enum: ['direct', null], title: 'feed', 'x-group': 'Needs', 'x-otherwise': 'any', 'x-words': { direct: 'direct' } },
    abrasive: { type: ['boolean', 'null'], title: 'wears brass', 'x-group': 'Spool' },
    spiral: { type: 'boolean', title: 'spiral', 'x-group': 'Shells' },
    start: { type: ['string', 'null'], title: 'start', 'x-group': 'Code', 'x-look': 'code' },
    bodies: {
      type: 'array',
      title: 'bodies',
      'x-group': 'Head',
      items: { properties: { outline: { 'x-below': { width: { 'x-short': 'body, wide' } }, $ref: '#/$defs/outline' } } },
    },
    outline: { $ref: '#/$defs/outline' },
  },
  ...({ $defs: { outline: { anyOf: [{ properties: { width: { type: 'number', title: 'width' } } }] } } } as object),
}

const settings = settingsOf(described)
const at = (pointer: string) => settings.find((setting) => setting.pointer === pointer)

it('takes what stands under a heading, and nothing else', () => {
  expect(settings.map(({ pointer }) => pointer)).not.toContain('/name')
  expect(settings.map(({ pointer }) => pointer)).not.toContain('/outline/width')
  expect(grouped(settings).map(({ title }) => title)).toEqual(['Shells', 'Inside', 'Speeds', 'Needs', 'Spool', 'Code', 'Head'])
  expect(grouped(settings)[0]!.settings.map(({ pointer }) => pointer)).toEqual(['/walls', '/seam', '/spiral'])
})

it('tells how each is typed', () => {
  const kinds = Object.fromEntries(settings.map(({ pointer, kind }) => [pointer, kind]))
  expect(kinds).toMatchObject({
    '/walls': 'number',
    '/seam': 'choice',
    '/feed': 'choice',
    '/abrasive': 'open',
    '/spiral': 'switch',
    '/start': 'code',
  })
  expect(at('/density')).toMatchObject({
    percent: true,
    limits: { least: 0, most: 1 },
    says: 'Stronger.',
    tends: [
      ['strength', 2],
      ['time', -3],
    ],
  })
  expect(at('/walls')).toMatchObject({ departs: 'zone', pages: ['trial'], limits: { whole: true } })
})

it('gives names, what holds otherwise, and what cannot be empty', () => {
  expect(at('/speeds/outer')).toMatchObject({ name: 'outer wall speed', label: 'outer wall', needed: true, otherwise: 'as the others' })
  expect(at('/speeds/top')).toMatchObject({ label: 'top speed', needed: false, otherwise: 'as the others' })
  expect(at('/speeds/least')).toMatchObject({ needed: true, otherwise: '10' })
  expect(at('/seam')?.choices).toEqual({ back: 'at the back', sharpest: 'sharpest' })
  expect(at('/feed')?.choices).toEqual({ '': 'any', direct: 'direct' })
  expect(at('/bodies/0/outline/width')?.label).toBe('body, wide')
})

it('finds by name, heading, other words, and what it does', () => {
  const found = (search: string) => settings.filter((setting) => answers(setting, search)).map(({ pointer }) => pointer)
  expect(found('perimeters')).toEqual(['/walls'])
  expect(found('speeds outer')).toEqual(['/speeds/outer'])
  expect(found('stronger')).toEqual(['/density'])
  expect(found('perimeters stronger')).toEqual([])
  expect(found('')).toHaveLength(settings.length)
})
