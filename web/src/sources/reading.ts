import { answerOf, type SourceReview } from '../api/client'
import { json, send } from '../api/send'
import type { DroppedFile } from '../exchange/dropped'

/** Where a source is read from: a place that the server reads, or files that were dropped with the path of their list. */
export type From = { place: string } | { files: readonly DroppedFile[]; list: string }

function bodyOf(from: From, key?: string): RequestInit {
  if ('place' in from) return { method: 'POST', ...json({ place: from.place, ...(key && { key }) }) }
  const body = new FormData()
  for (const { path, file } of from.files) body.append('files', file, path)
  body.append('list', from.list)
  if (key) body.append('key', key)
  return { method: 'POST', body }
}

const address = (from: From, what: 'look' | 'take') => `/api/pattern-sources/${what}${'place' in from ? '' : '-dropped'}`

/** Looks at a source; nothing is kept. */
export const look = async (from: From) => answerOf<SourceReview>(await send(address(from, 'look'), bodyOf(from)))

/** Takes a source with the key that was looked at. */
export async function take(from: From, key: string): Promise<void> {
  const answer = await send(address(from, 'take'), bodyOf(from, key))
  if (!answer.ok) await answerOf(answer)
}
