import { json, send } from '../api/send'
import { answerOf, type Card, type DocumentHead, type Filament, type Recipe, type Trial } from '../api/client'

/** Documents by the name of their address. */
export interface Kinds {
  cards: Card
  filaments: Filament
  recipes: Recipe
  trials: Trial
}

export type Kind = keyof Kinds

export interface Stored<T> {
  id: string
  version: number
  savedAt: string
  document: T
}

/** Somebody else saved in between. */
export class Clashed<T> extends Error {
  constructor(readonly current: Stored<T>) {
    super('This was also changed elsewhere.')
  }
}

async function ask<T>(address: string, init?: RequestInit): Promise<T> {
  const answer = await send(address, init)
  if (answer.status === 412) throw new Clashed(((await answer.json()) as { current: Stored<unknown> }).current)
  return answerOf<T>(answer)
}

export const documents = {
  list: (kind: Kind, card?: string) => ask<DocumentHead[]>(`/api/${kind}${card ? `?card=${card}` : ''}`),
  archived: (kind: Kind) => ask<DocumentHead[]>(`/api/${kind}?archived=true`),
  read: <K extends Kind>(kind: K, id: string) => ask<Stored<Kinds[K]>>(`/api/${kind}/${id}`),
  make: <K extends Kind>(kind: K, document: Kinds[K]) => ask<Stored<Kinds[K]>>(`/api/${kind}`, { method: 'POST', ...json(document) }),
  /** Nothing where a draft holds against its schema; else it is refused. */
  holds: <K extends Kind>(kind: K, document: Kinds[K]) => ask<undefined>(`/api/${kind}/holds`, { method: 'POST', ...json(document) }),
  remove: (kind: Kind, id: string) => ask<undefined>(`/api/${kind}/${id}`, { method: 'DELETE' }),
  archive: (kind: Kind, id: string) => ask<undefined>(`/api/${kind}/${id}/archive`, { method: 'POST' }),
  restore: (kind: Kind, id: string) => ask<undefined>(`/api/${kind}/${id}/restore`, { method: 'POST' }),
  save: <T>(kind: Kind, id: string, version: number, document: T, leaving = false) => {
    const request = json(document)
    return ask<Stored<T>>(`/api/${kind}/${id}`, {
      method: 'PUT',
      ...request,
      headers: { ...request.headers, 'if-match': `"${version}"` },
      keepalive: leaving,
    })
  },
}
