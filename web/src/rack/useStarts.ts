import { useQueryClient } from '@tanstack/react-query'
import { useSnackbar } from 'notistack'
import { useNavigate } from 'react-router'
import { api, dataOf, sentenceOf, type Card } from '../api/client'
import { blankCard } from '../open-card/facts'
import { documents } from '../open-document/documents'

const largest = 4 * 2 ** 20

/** The ways to start a card, and to bring one back. Each says in a sentence if it fails. */
export function useStarts() {
  const client = useQueryClient()
  const go = useNavigate()
  const { enqueueSnackbar } = useSnackbar()

  const attempt = async (work: () => Promise<void>, about = '') => {
    try {
      await work()
      await client.invalidateQueries({ queryKey: ['list', 'cards'] })
    } catch (failure) {
      enqueueSnackbar(about + sentenceOf(failure), { variant: 'error' })
    }
  }
  const measureUp = async (card: Card) => {
    const made = await documents.make('cards', { ...card, measureUp: { done: false } })
    await go(`/cards/${made.id}/measure-up`)
  }
  const fromFiles = (files: File[]) =>
    files.reduce<Promise<void>>(
      (before, file) =>
        before.then(() =>
          attempt(async () => {
            if (file.size > largest) throw new Error('this is too large for a card.')
            const text = await file.text()
            let card: Card
            try {
              card = JSON.parse(text) as Card
            } catch {
              throw new Error('this is not a card: it is not JSON.')
            }
            if (card?.schema !== 'mill-card/card/1') throw new Error('this is not a card: its schema is not mill-card/card/1.')
            const made = await documents.make('cards', card)
            if (files.length === 1) await go(`/cards/${made.id}`)
          }, `${file.name}: `),
        ),
      Promise.resolve(),
    )

  return {
    fromNothing: () => attempt(() => measureUp(blankCard)),
    fromPattern: (id: string) =>
      attempt(async () => measureUp(dataOf(await api.GET('/api/patterns/{id}/card', { params: { path: { id } } })))),
    fromFiles,
    pickFile: () => {
      const input = Object.assign(document.createElement('input'), { type: 'file', accept: '.json', multiple: true })
      input.onchange = () => void fromFiles([...(input.files ?? [])])
      input.click()
    },
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
    putAway: (id: string) => attempt(async () => void (await documents.archive('cards', id))),
    remove: (id: string) => attempt(async () => void (await documents.remove('cards', id))),
    bringBack: (id: string) => attempt(async () => void (await documents.restore('cards', id))),
  }
}
