import { api, dataOf, type Card, type Recipe, type Trial, type TrialOrderAnswer } from '../api/client'
import { useAnswer } from '../api/useAnswer'
import { machineOf } from '../open-card/machine'

/** What printing one at a time comes to, as the parts stand now; undefined while it is not asked for or not known. */
export function useOrder(card: Card, recipe: Recipe | undefined, trial: Trial, still: boolean): TrialOrderAnswer | undefined {
  const { parts, limits, mode, sequence } = trial
  const asked = sequence === 'one-at-a-time' && (parts?.length ?? 0) > 0
  const question = asked && still ? { card: machineOf(card), recipe, parts: parts ?? [], limits, mode } : undefined
  const { data } = useAnswer('order', question, async (body, signal) => dataOf(await api.POST('/api/trials/order', { body, signal })))
  return asked ? data : undefined
}
