import { useSnackbar } from 'notistack'
import { useLayoutEffect, useState } from 'react'
import { createStore, type StoreApi } from 'zustand'
import { api, dataOf, sentenceOf, type ArrangeAnswer, type Card, type Recipe, type Trial, type TrialPart } from '../api/client'
import { machineOf } from '../open-card/machine'
import type { DocumentState } from '../open-document/documentStore'
import { asAdded } from './together'

/** Finds places on the bed; parts are moved and added, never removed. */
export interface Arranging {
  /** All parts anew. */
  arrange: () => Promise<void>
  /** Adds parts and chooses them: on free ground as far as there is any, else where they say. What lies there stays. */
  lay: (parts: readonly TrialPart[]) => Promise<void>
  /** As many more of a part as find room. */
  fill: (index: number) => Promise<void>
}

interface Asked {
  trialStore: StoreApi<DocumentState<Trial>>
  card: Card
  recipe: Recipe | undefined
  select: (parts: readonly number[]) => void
}

/** The same actions as long as the page is open; they look at the newest state. */
export function useArranging(asked: Asked): Arranging {
  const { enqueueSnackbar } = useSnackbar()
  const [newest] = useState(() => createStore(() => asked))
  useLayoutEffect(() => newest.setState(asked, true))
  const [actions] = useState(() => actionsOf(newest.getState, (sentence) => enqueueSnackbar(sentence, { variant: 'warning' })))
  return actions
}

function actionsOf(asked: () => Asked, say: (sentence: string) => void): Arranging {
  // parts that are added at once see each other
  let last = Promise.resolve()
  const inTurn = (work: () => Promise<void>) =>
    (last = last.then(work).catch((failure: unknown) => {
      say(sentenceOf(failure))
    }))
  const trial = () => asked().trialStore.getState()
  const parts = () => trial().document.parts ?? []
  const ask = async (all: TrialPart[], more: { held?: number[]; mayTurn?: boolean; fillWith?: number }): Promise<ArrangeAnswer> => {
    const { limits, mode, sequence } = trial().document
    const { card, recipe } = asked()
    return dataOf(
      await api.POST('/api/trials/arrange', { body: { card: machineOf(card), recipe, parts: all, limits, mode, sequence, ...more } }),
    )
  }
  const add = (added: readonly TrialPart[]) =>
    trial().change((before) => ({ ...before, parts: [...(before.parts ?? []), ...asAdded(added)] }))

  return {
    arrange: () =>
      inTurn(async () => {
        const before = parts()
        if (before.length === 0) return
        const { places } = await ask(before, { mayTurn: true })
        trial().change((now) => ({
          ...now,
          parts: now.parts?.map((part, i) => (before[i]?.file === part.file && places[i] ? { ...part, ...places[i] } : part)),
        }))
        const left = before.filter((_, i) => !places[i]).map((part) => part.name)
        if (left.length > 0) say(`There is no room for ${left.join(', ')}; ${left.length === 1 ? 'it stays where it is' : 'they stay'}.`)
      }),
    lay: (added) =>
      inTurn(async () => {
        const there = parts()
        // a card that is not complete cannot tell; the part is not lost for that
        const nowhere = added.map(() => null)
        const places = await ask([...there, ...asAdded(added)], { held: there.map((_, i) => i) }).then(
          (answer) => answer.places.slice(there.length),
          () => nowhere,
        )
        add(added.map((part, i) => ({ ...part, ...places[i] })))
        asked().select(added.map((_, i) => there.length + i))
      }),
    fill: (index) =>
      inTurn(async () => {
        const there = parts()
        const part = there[index]
        if (!part) return
        const { more } = await ask(there, { fillWith: index })
        const stem = (name: string) => name.replace(/ \d+$/, '')
        const first = there.filter(({ name }) => stem(name) === stem(part.name)).length + 1
        if (more.length === 0) say(`There is no room for another ${stem(part.name)}.`)
        else add(more.map((place, i) => ({ ...part, ...place, name: `${stem(part.name)} ${first + i}` })))
      }),
  }
}
