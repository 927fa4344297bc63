import { asker } from './client'

/** The one place where a request is made by hand: for files, streams and addresses that several kinds of document share. */
export const send = (address: string, init: RequestInit = {}): Promise<Response> =>
  fetch(address, { ...init, headers: { ...asker, ...init.headers } })

/** A file's bytes as a body. */
export const bytes = (body: Blob | string): RequestInit => ({ body, headers: { 'content-type': 'application/octet-stream' } })

/** A document as a body. */
export const json = (document: unknown): RequestInit => ({
  body: JSON.stringify(document),
  headers: { 'content-type': 'application/json' },
})
