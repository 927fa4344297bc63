import { useSchema } from '../open-document/schema'
import { nameOf } from '../open-document/names'
import { pathOf } from '../open-document/place'
import { pointerOf, stepsOf } from '../open-document/pointer'
import { useCard } from './CardContext'

/** What people call what pointers name: facts of the open card, and those of the documents that a proof rests on. */
export function useFactNames() {
  const { document: card, limits } = useCard()
  const others = { filament: useSchema('filament'), recipe: useSchema('recipe'), trial: useSchema('trial') }
  const ofCard = (pointer: string) => nameOf(pathOf(card, pointer), [card], limits)
  /** @param pointer Begins with the document: `/recipe/walls`. */
  const ofAny = (pointer: string) => {
    const [document, ...steps] = stepsOf(pointer)
    if (document === 'card') return ofCard(pointerOf(steps))
    const schema = others[document as 'recipe']
    return steps.length === 0 || !schema ? `the ${document}` : `${document}'s ${nameOf(steps, [], schema)}`
  }
  return { ofCard, ofAny }
}
