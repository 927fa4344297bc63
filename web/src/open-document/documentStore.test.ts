// @vitest-environment jsdom
import { afterEach, beforeEach, expect, it, vi } from 'vitest'
import type { Card } from '../api/client'
import { createDocumentStore } from './documentStore'
import { openDocument } from './openDocument'

type Answer = (version: string | undefined, body: Card) => { status: number; body: unknown }

/** A server that keeps one card, as the real one does; `next` answers the next requests in its place. */
function server(card: Card) {
  let stored = { id: 'c1', version: 1, savedAt: '2026-11-27T10:00:00Z', document: card }
  const requests: string[] = []
  const next: (Answer | 'away')[] = []
  const take = (document: Card) => (stored = { ...stored, version: stored.version + 1, document })
  vi.stubGlobal('fetch', (address: string, init?: RequestInit) => {
    const method = init?.method ?? 'GET'
    requests.push(`${method} ${address}`)
    const body = init?.body ? (JSON.parse(init.body as string) as Card) : ({} as Card)
    const version = (init?.headers as Record<string, string> | undefined)?.['if-match']?.replaceAll('"', '')
    const special = method === 'PUT' ? next.shift() : undefined
    if (special === 'away') throw new TypeError('network')
    const { status, body: answer } = special ? special(version, body) : usual(method, address, version, body)
    return new Response(status === 204 ? null : JSON.stringify(answer), { status })
  })
  const usual = (method: string, address: string, version: string | undefined, body: Card) => {
    if (address.endsWith('/holds'))
      return typeof body.name === 'string'
        ? { status: 204, body: null }
        : { status: 422, body: { status: 422, detail: 'Name must be text.' } }
    if (method !== 'PUT') return { status: 200, body: stored }
    return version === String(stored.version) ? { status: 200, body: take(body) } : { status: 412, body: { current: stored } }
  }
  return { requests, next, take, card: () => stored.document, open: () => openDocument('cards', 'c1') }
}

const clip = (id: string, top = 4) => ({
  id,
  name: id,
  kind: 'obstacle' as const,
  top,
  outline: { shape: 'circle' as const, x: 0, y: 0, radius: 1 },
})
const card = {
  schema: 'mill-card/card/1',
  name: 'Dunlin',
  envelope: { height: 170, keepOuts: [clip('a'), clip('b')] },
  sources: {},
} as unknown as Card
const height = (at: Card) => at.envelope?.height
const clips = (at: Card) => at.envelope?.keepOuts?.map((one) => one.id)
const settle = () => vi.advanceTimersByTimeAsync(1000)
const keys = () => Object.keys(localStorage).filter((key) => key.startsWith('mill-card/unsaved/'))

beforeEach(() => {
  vi.useFakeTimers()
  localStorage.clear()
})
afterEach(() => {
  vi.unstubAllGlobals()
  vi.restoreAllMocks()
  vi.useRealTimers()
})

it('saves what is typed within a second, quick edits of a field as one step of undo', async () => {
  const at = server(card)
  const store = await at.open()
  for (const value of [1, 16, 165]) store.getState().set('/envelope/height', value)
  expect(store.getState().state).toBe('waiting')
  await settle()
  expect(store.getState().state).toBe('saved')
  expect(height(at.card())).toBe(165)
  expect(store.getState().past).toHaveLength(1)
  store.getState().undo()
  await settle()
  expect(height(at.card())).toBe(170)
  store.getState().redo()
  await settle()
  expect(height(at.card())).toBe(165)
  expect(at.requests.filter((request) => request.startsWith('PUT'))).toHaveLength(3)
})

it('takes in what another tab added and keeps what was added here', async () => {
  const at = server(card)
  const [one, two] = [await at.open(), await at.open()]
  one.getState().change((before) => ({ ...before, envelope: { ...before.envelope, keepOuts: [...before.envelope!.keepOuts!, clip('c')] } }))
  two.getState().change((before) => ({ ...before, envelope: { ...before.envelope, keepOuts: [...before.envelope!.keepOuts!, clip('d')] } }))
  await settle()
  expect([...clips(at.card())!].sort()).toEqual(['a', 'b', 'c', 'd'])
  expect([one.getState().state, two.getState().state]).toEqual(['saved', 'saved'])
})

it('gives a new member an id and takes sources along when one before it goes', async () => {
  const at = server({ ...card, sources: { '/envelope/keepOuts/1/top': { source: 'measured' } } })
  const store = await at.open()
  store.getState().set('/envelope/keepOuts/-', { name: 'new', kind: 'reserved', outline: { shape: 'circle', x: 0, y: 0, radius: 2 } })
  store.getState().set('/envelope/keepOuts/0', undefined)
  await settle()
  expect(clips(at.card())).toEqual(['b', expect.stringMatching(/^\w{6,}$/)])
  expect(at.card().sources).toEqual({ '/envelope/keepOuts/0/top': { source: 'measured' } })
})

it('undoes its own edits and leaves those of others alone', async () => {
  const at = server(card)
  const store = await at.open()
  at.take({ ...card, envelope: { ...card.envelope, height: 150 } })
  store.getState().set('/name', 'Dunlin II')
  await settle()
  expect(at.card()).toMatchObject({ name: 'Dunlin II', envelope: { height: 150 } })
  store.getState().undo()
  await settle()
  expect(at.card()).toMatchObject({ name: 'Dunlin', envelope: { height: 150 } })
})

it('keeps what others made of a value that is undone', async () => {
  const at = server(card)
  const store = await at.open()
  store.getState().set('/envelope/height', 165)
  await settle()
  at.take({ ...at.card(), envelope: { ...card.envelope, height: 150 } })
  store.getState().set('/name', 'II')
  await settle()
  store.getState().undo()
  store.getState().undo()
  await settle()
  expect(at.card()).toMatchObject({ name: 'Dunlin', envelope: { height: 150 } })
})

it('asks where a value was changed here and elsewhere, saves the rest, and overwrites nothing before', async () => {
  const at = server(card)
  const store = await at.open()
  at.take({ ...card, envelope: { ...card.envelope, height: 150 } })
  store.getState().set('/envelope/height', 165)
  store.getState().set('/name', 'II')
  await settle()
  expect(store.getState().clashes).toMatchObject([{ path: ['envelope', 'height'], mine: 165, theirs: 150 }])
  expect(store.getState().state).toBe('clash')
  expect(height(store.getState().document)).toBe(165)
  expect(at.card()).toMatchObject({ name: 'II', envelope: { height: 150 } })
  store.getState().choose(store.getState().clashes[0]!, 'mine')
  await settle()
  expect(height(at.card())).toBe(165)
  expect(store.getState()).toMatchObject({ state: 'saved', clashes: [] })
})

it('takes theirs at a clash, which can be undone', async () => {
  const at = server(card)
  const store = await at.open()
  at.take({ ...card, envelope: { ...card.envelope, keepOuts: [clip('a', 9), clip('b')] } })
  store.getState().set('/envelope/keepOuts/0', undefined)
  await settle()
  expect(clips(at.card())).toEqual(['a', 'b'])
  store.getState().choose(store.getState().clashes[0]!, 'theirs')
  await settle()
  expect(store.getState()).toMatchObject({ state: 'saved', clashes: [] })
  expect(store.getState().document.envelope?.keepOuts).toEqual([clip('a', 9), clip('b')])
  store.getState().undo()
  await settle()
  expect(clips(at.card())).toEqual(['b'])
})

it('asks again after a reload with an open clash', async () => {
  const at = server(card)
  const store = await at.open()
  at.take({ ...card, envelope: { ...card.envelope, height: 150 } })
  store.getState().set('/envelope/height', 165)
  await settle()
  const again = await at.open()
  await settle()
  expect(again.getState().clashes).toMatchObject([{ mine: 165, theirs: 150 }])
  expect(height(at.card())).toBe(150)
})

it.each([500, 502, 503, 429, 'away'] as const)('keeps the draft and saves by itself after %s', async (how) => {
  const at = server(card)
  const store = await at.open()
  at.next.push(how === 'away' ? 'away' : () => ({ status: how, body: { status: how, detail: 'The disk is full.' } }))
  store.getState().set('/envelope/height', 165)
  await settle()
  expect(store.getState()).toMatchObject({ state: 'unreachable', keptHere: true })
  expect(keys()).toHaveLength(1)
  store.getState().set('/name', 'II')
  expect(localStorage.getItem(keys()[0]!)).toContain('"II"')
  await vi.advanceTimersByTimeAsync(3000)
  expect(store.getState().state).toBe('saved')
  expect(at.card()).toMatchObject({ name: 'II', envelope: { height: 165 } })
  expect(keys()).toEqual([])
})

it('says at the field why a draft is refused, keeps it, and saves the next edit', async () => {
  const at = server(card)
  const store = await at.open()
  at.next.push(() => ({
    status: 422,
    body: { status: 422, detail: 'Too high.', errors: [{ pointer: '/envelope/height', message: 'Too high.' }] },
  }))
  store.getState().set('/envelope/height', 9999)
  await settle()
  expect(store.getState()).toMatchObject({ state: 'refused', problem: 'Too high.', errors: { '/envelope/height': 'Too high.' } })
  expect(keys()).toHaveLength(1)
  store.getState().set('/envelope/height', 165)
  await settle()
  expect(store.getState()).toMatchObject({ state: 'saved', errors: {} })
})

it('edits and saves with a browser store that is full or closed, and says that nothing is kept here', async () => {
  const at = server(card)
  vi.spyOn(Storage.prototype, 'setItem').mockImplementation(() => {
    throw new DOMException('full', 'QuotaExceededError')
  })
  vi.spyOn(Storage.prototype, 'getItem').mockImplementation(() => {
    throw new DOMException('closed', 'SecurityError')
  })
  const store = await at.open()
  at.next.push('away')
  store.getState().set('/envelope/height', 165)
  await settle()
  expect(store.getState()).toMatchObject({ state: 'unreachable', keptHere: false })
  await vi.advanceTimersByTimeAsync(3000)
  expect(store.getState().state).toBe('saved')
  expect(height(at.card())).toBe(165)
})

it('keeps what is unsaved when the page is left, and lays it over what others saved meanwhile', async () => {
  const at = server(card)
  const store = await at.open()
  at.next.push('away')
  store.getState().set('/envelope/height', 165)
  window.dispatchEvent(new Event('pagehide'))
  expect(keys()).toHaveLength(1)
  at.take({ ...card, name: 'II' })
  const again = await at.open()
  expect(again.getState().document).toMatchObject({ name: 'II', envelope: { height: 165 } })
  await settle()
  expect(at.card()).toMatchObject({ name: 'II', envelope: { height: 165 } })
  expect(keys()).toEqual([])
})

it.each([
  ['cut short', '{"base":{"na'],
  ['of another sort', JSON.stringify({ base: {}, document: { schema: 'mill-card/recipe/1' } })],
  ['without its members', JSON.stringify({ base: card, document: { ...card, name: [] } })],
])('offers a kept draft that is %s as a file, and opens the document without it', async (_, text) => {
  const at = server(card)
  localStorage.setItem('mill-card/unsaved/cards/c1', text)
  const store = await at.open()
  expect(store.getState().document).toEqual(card)
  expect(store.getState().setAside).toMatchObject([{ text }])
  expect(store.getState().setAside[0]!.why).not.toBe('')
  await settle()
  expect(keys()).toHaveLength(1)
  store.getState().forget(store.getState().setAside[0]!.key)
  expect(keys()).toEqual([])
  expect(store.getState().setAside).toEqual([])
})

it('keeps drafts of two tabs beside each other', async () => {
  server(card)
  localStorage.setItem(
    'mill-card/unsaved/cards/c1/other',
    JSON.stringify({ base: card, document: { ...card, name: 'from the other tab' }, at: 1 }),
  )
  const store = createDocumentStore('cards', { stored: { id: 'c1', version: 1, savedAt: '', document: card } })
  store.getState().set('/envelope/height', 165)
  await settle()
  expect(store.getState().state).toBe('saved')
  expect(keys()).toEqual(['mill-card/unsaved/cards/c1/other'])
})

it('leaves nothing to send when nothing was typed', async () => {
  const at = server(card)
  const store = await at.open()
  window.dispatchEvent(new Event('pagehide'))
  await settle()
  expect(store.getState().state).toBe('saved')
  expect(at.requests).toEqual(['GET /api/cards/c1'])
})
