import { api, dataOf, type Card, type HeaterAnswer, type MotionAnswer } from '../api/client'
import { useAnswer } from '../api/useAnswer'
import { machineOf } from '../open-card/machine'

/** What follows from the drives of a card, as it stands now; undefined until it is known. */
export const useMotion = (card: Card | undefined): MotionAnswer | undefined =>
  useAnswer('motion', card && machineOf(card), async (body, signal) => dataOf(await api.POST('/api/motion', { body, signal }))).data

/** Where the heaters of a card end and how long they take. */
export const useHeat = (card: Card): HeaterAnswer[] | undefined =>
  useAnswer('heaters', machineOf(card), async (body, signal) => dataOf(await api.POST('/api/heat', { body, signal }))).data
