import { describe, expect, it } from 'vitest'
import type { Card } from '../api/client'
import { toX, toY } from '../drawing/view'
import { headLayout } from './headLayout'

const card = (head: object) => ({ schema: 'millcard/card-1', name: 'x', head }) as unknown as Card
const body = (x: number, y: number, width: number, depth: number, underside: number) => ({
  id: 'b',
  name: 'duct',
  outline: { shape: 'rectangle', x, y, width, depth },
  underside,
})

describe('views of a head', () => {
  it('stand under one another to one scale', () => {
    const { front, below } = headLayout(card({ bodies: [body(-40, -20, 80, 60, 10)] }), 1000, 700)
    expect([below.scale, below.x0, below.fromBelow]).toEqual([front.scale, front.x0, true])
    expect(toY(front, 0)).toBeLessThan(toY(below, -20))
  })

  it('hold every body, nozzle and probe', () => {
    const far = card({
      bodies: [body(-70, -55, 60, 30, 5), body(20, 10, 90, 80, 18)],
      nozzles: [{ id: 'T0' }, { id: 'T1', offset: { x: 33, y: -60 } }],
      probe: { kind: 'switch', x: -95, y: 30 },
    })
    const layout = headLayout(far, 1000, 700)
    for (const x of [-95, -70, 33, 110]) {
      expect(toX(layout.below, x)).toBeGreaterThan(layout.left)
      expect(toX(layout.below, x)).toBeLessThan(layout.right)
    }
    for (const y of [-60, -55, 90]) {
      expect(toY(layout.below, y)).toBeGreaterThan(layout.belowTop)
      expect(toY(layout.below, y)).toBeLessThan(layout.bottom)
    }
    expect(toY(layout.front, 18)).toBeGreaterThan(layout.frontTop)
  })

  it('make room for the second carriage at its nearest', () => {
    const one = { bodies: [body(-30, -20, 60, 40, 10)], leastDistance: 90 }
    const two = { ...one, carriages: [{ nozzle: 'T0' }, { nozzle: 'T1' }] }
    expect(toX(headLayout(card(two), 1000, 700).below, 120)).toBeLessThan(headLayout(card(two), 1000, 700).right)
    expect(headLayout(card(two), 1000, 700).below.scale).toBeLessThan(headLayout(card(one), 1000, 700).below.scale)
  })

  it('show a far beam only as far as helps, and a bare head not larger than life times seven', () => {
    const near = headLayout(card({ beams: [{ along: 'x', near: -70, far: -60, underside: 20 }] }), 1000, 700)
    const distant = headLayout(card({ beams: [{ along: 'x', near: -400, far: -390, underside: 20 }] }), 1000, 700)
    expect(distant.below.scale).toBeGreaterThan(0.8 * near.below.scale)
    expect(headLayout(card({}), 4000, 3000).below.scale).toBe(7)
  })
})
