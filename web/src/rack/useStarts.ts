import { useQueryClient } from '@tanstack/react-query'
import { useSnackbar } from 'notistack'
import { useNavigate } from 'react-router'
import { sentenceOf, type Card } from '../api/client'
import { blankCard } from '../open-card/facts'
import { cardOfPattern } from '../open-card/patterns'
import { documents } from '../open-document/documents'

/** The ways to start a card, and to bring one back. Each says in a sentence if it fails. */
export function useStarts() {
  const client = useQueryClient()
  const go = useNavigate()
  const { enqueueSnackbar } = useSnackbar()

  const attempt = async (work: () => Promise<void>) => {
    try {
      await work()
      await client.invalidateQueries({ queryKey: ['list', 'cards'] })
    } catch (failure) {
      enqueueSnackbar(sentenceOf(failure), { variant: 'error' })
    }
  }
  const measureUp = async (card: Card) => {
    const made = await documents.make('cards', { ...card, measureUp: { done: false } })
    await go(`/cards/${made.id}/measure-up`)
  }

  return {
    fromNothing: () => attempt(() => measureUp(blankCard)),
    fromPattern: (id: string) => attempt(async () => measureUp(await cardOfPattern(id))),
    copy: (id: string) =>
      attempt(async () => {
        const { document: card } = await documents.read('cards', id)
        const carried = Object.fromEntries(
          Object.entries(card.sources ?? {}).map(([pointer, source]) => [pointer, { ...source, source: 'carried-over' as const }]),
        )
        const made = await documents.make('cards', { ...card, name: `${card.name ?? 'card'}, copy`, sources: carried })
        await go(`/cards/${made.id}`)
      }),
    rename: (id: string, name: string) =>
      attempt(async () => {
        const { document: card, version } = await documents.read('cards', id)
        await documents.save('cards', id, version, { ...card, name })
        client.removeQueries({ queryKey: ['open', 'cards', id] })
      }),
    bringBack: (id: string) => attempt(async () => void (await documents.restore('cards', id))),
  }
}
