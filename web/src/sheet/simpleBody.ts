import type { Card } from '../api/client'
import { known } from '../open-card/sources'
import { under } from '../open-document/pointer'

const body = { name: 'fan duct', outline: { shape: 'rectangle' as const, x: -20, y: -20, width: 40, depth: 40 }, underside: 5 }
const facts = ['outline/width', 'outline/depth', 'outline/x', 'outline/y', 'underside'].map((fact) => under('/head/bodies/0', fact))

/** The card with one simple body beside the nozzle; its figures are assumed until they are measured. */
export const withSimpleBody = (card: Card): Card => known({ ...card, head: { ...card.head, bodies: [body] } }, facts, 'assumed')
