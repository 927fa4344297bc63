import { answerOf, type PacketReview, type TakenDocument } from '../api/client'
import { json, send } from '../api/send'
import { documents, type Kind } from '../open-document/documents'
import { download } from '../shell/download'
import type { DroppedFile } from './dropped'

const form = (files: readonly DroppedFile[], take: readonly string[] = []) => {
  const body = new FormData()
  for (const { path, file } of files) body.append('files', file, path)
  for (const path of take) body.append('take', path)
  return { method: 'POST', body }
}

/** What was dropped, told apart and held against what is here; nothing is kept. */
export const review = async (files: readonly DroppedFile[], signal?: AbortSignal) =>
  answerOf<PacketReview>(await send('/api/packets/review', { ...form(files), ...(signal && { signal }) }))

/** Takes documents of what was dropped: all of them, or none. */
export const take = async (files: readonly DroppedFile[], paths: readonly string[]) =>
  answerOf<TakenDocument[]>(await send('/api/packets/take', form(files, paths)))

/** One file of what was dropped, out of its zip where it lies in one. */
export async function fileAt(files: readonly DroppedFile[], path: string): Promise<File> {
  const name = path.split('/').at(-1) ?? path
  const own = files.find((one) => one.path === path)
  if (own) return own.file
  const answer = await send('/api/packets/file', form(files, [path]))
  if (!answer.ok) await answerOf(answer)
  return new File([await answer.blob()], name)
}

/** What to pack: by id, or everything. */
export interface Wish {
  documents?: string[]
  history: boolean
  who?: string
  why?: string
}

/** Saves a packet as a file. */
export async function savePacket(wish: Wish, name: string): Promise<void> {
  const answer = await send('/api/packets', { method: 'POST', ...json(wish) })
  if (!answer.ok) await answerOf(answer)
  download(await answer.blob(), `${fileName(name)}.packet.zip`)
}

/** Saves a document alone as a JSON file. */
export async function saveJson(kind: Kind, id: string): Promise<void> {
  const { document } = await documents.read(kind, id)
  const text = `${JSON.stringify(document, undefined, 2)}\n`
  download(new Blob([text], { type: 'application/json' }), `${fileName(document.name ?? kind.slice(0, -1))}.${kind.slice(0, -1)}.json`)
}

/** A name that every file system takes. */
export const fileName = (name: string) =>
  name
    .replace(/[^\p{L}\p{N}\-_ ]/gu, ' ')
    .replace(/\s+/g, ' ')
    .trim()
    .slice(0, 80) || 'Mill Card'
