import { api, dataOf, type Verdict } from '../api/client'

const order: Verdict[] = ['fits', 'fits-with-cautions', 'does-not-fit']

/** The filament and the recipe that go with a card best; the first by name of those that go equally well. */
export async function firstChoice(card: string): Promise<{ filament?: string; recipe?: string }> {
  const { filaments, recipes } = dataOf(await api.GET('/api/cards/{id}/matches', { params: { path: { id: card } } }))
  const best = (all: typeof filaments) => [...all].sort((a, b) => order.indexOf(a.verdict) - order.indexOf(b.verdict))[0]?.id
  return { filament: best(filaments), recipe: best(recipes) }
}
