import { api, dataOf, type TrialPart } from '../api/client'
import { useAnswer } from '../api/useAnswer'
import { machineOf } from '../open-card/machine'
import { useTrial } from './TrialContext'

/** How many of a part fit the bed one at a time, and where they stand then. */
export function usePacking(part: TrialPart | undefined) {
  const { trial, card, recipe } = useTrial('trial', 'card', 'recipe')
  const { limits } = trial.document
  // where the part stands now plays no role
  const question = part && { card: machineOf(card.document), recipe: recipe?.document, part: { ...part, x: 0, y: 0 }, limits }
  return useAnswer('packing', question, async (body, signal) => dataOf(await api.POST('/api/trials/packing', { body, signal }))).data
}
