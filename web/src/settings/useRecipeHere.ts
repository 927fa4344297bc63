import { api, dataOf, type Card, type Filament, type Recipe, type RecipeHere } from '../api/client'
import { useAnswer } from '../api/useAnswer'
import { machineOf } from '../open-card/machine'

/** Heights and width as the slicer takes them on this machine. */
export function useRecipeHere(card: Card, recipe: Recipe | undefined, filament: Filament | undefined): RecipeHere | undefined {
  const body = { card: machineOf(card), recipe, filament }
  const { data } = useAnswer('recipe-here', recipe && body, async (question, signal) =>
    dataOf(await api.POST('/api/recipe-here', { body: question, signal })),
  )
  return data
}
