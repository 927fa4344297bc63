import { api, dataOf, type Card, type TrialLimits } from '../api/client'
import { useAnswer } from '../api/useAnswer'
import { machineOf } from '../open-card/machine'

/** The card as a trial with limits of its own may use it; the card itself until that is known. */
export function useTightened(card: Card, limits: TrialLimits | null | undefined): Card {
  const question = limits ? { card: machineOf(card), limits } : undefined
  const { data } = useAnswer('tightened', question, async (body, signal) => dataOf(await api.POST('/api/trials/card', { body, signal })))
  return (limits && data) ?? card
}
