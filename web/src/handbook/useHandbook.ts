import { useQuery } from '@tanstack/react-query'
import { api, answerOf, dataOf, type Card } from '../api/client'
import { send } from '../api/send'
import { settingsOf, type Setting } from '../open-document/description'
import { useSchemaIfHere } from '../open-document/schema'
import { useFlavours, useRoutineNames } from '../routine-editor/useRoutineWords'

/** What the handbook gathers from the server, so that it cannot tell anything else than what is computed. */
export function useHandbook() {
  const { data: told } = useQuery({
    queryKey: ['handbook'],
    staleTime: Infinity,
    queryFn: async () => dataOf(await api.GET('/api/handbook')),
  })
  const names = useRoutineNames()
  const flavours = useFlavours()
  const { data: gauges } = useQuery({
    queryKey: ['handbook-gauges'],
    staleTime: Infinity,
    queryFn: async () => {
      const card = await answerOf<Card>(await send('/api/examples/card'))
      return dataOf(await api.POST('/api/gauges', { body: { card } }))
    },
  })
  const [card, filament, recipe] = [useSchemaIfHere('card'), useSchemaIfHere('filament'), useSchemaIfHere('recipe')]
  const settings: [string, Setting[]][] = [
    ['Cards', card ? settingsOf(card) : []],
    ['Filaments', filament ? settingsOf(filament) : []],
    ['Recipes', recipe ? settingsOf(recipe) : []],
  ]
  return { rules: told?.rules, formulas: told?.formulas, names, flavours, gauges, settings }
}
