import { Ajv2020 } from 'ajv/dist/2020.js'
import fc from 'fast-check'
import { expect, it } from 'vitest'
import avocet from '../../../demo/cards/avocet.json?raw'
import api from '../../../src/MillCard.Web/openapi/v1.json?raw'
import { isObject, keyOf, keysOf, same, withIds, type Json } from './members'
import { merge, withOther } from './merge'
import { following, namedById, pathOf } from './place'
import { pointerOf, withValue, under } from './pointer'

// the schema that the server itself holds documents to, as its API description says it
const holds = new Ajv2020({ strict: false, allErrors: false, validateFormats: false })
  .addSchema(JSON.parse(api) as object, 'api')
  .getSchema('api#/components/schemas/Card')!

const origin = withIds(JSON.parse(avocet) as Json)

/** A list or a value of a document, by its place in the list of all of them, so that a script fits whatever document it meets. */
type Edit = { do: 'set' | 'remove' | 'add' | 'move' | 'shape' | 'source'; at: number; value: number }

const scripts = fc.array(
  fc.record({
    do: fc.constantFrom<Edit['do'][]>('set', 'set', 'remove', 'add', 'move', 'shape', 'source'),
    at: fc.nat(10_000),
    value: fc.nat(1000),
  }),
  { minLength: 1, maxLength: 6 },
)

const lists = ['/envelope/keepOuts', '/head/bodies', '/head/beams', '/head/nozzles', '/head/fans', '/modes']

const at = (document: unknown, pointer: string) =>
  pointer
    .slice(1)
    .split('/')
    .reduce<unknown>((value, step) => (value as Json | undefined)?.[step], document)

const fixed = ['pattern', 'sources', 'microsteps', 'teeth', 'starts', 'number', 'columns', 'rows']

/** Pointers of all numbers that a person may type over. */
function numbers(value: unknown, pointer = ''): string[] {
  if (typeof value === 'number') return [pointer]
  if (Array.isArray(value)) return value.every(isObject) ? value.flatMap((one, i) => numbers(one, under(pointer, i))) : []
  if (!isObject(value)) return []
  return Object.entries(value).flatMap(([name, one]) => (fixed.includes(name) ? [] : numbers(one, under(pointer, name))))
}

function edited(document: Json, edit: Edit, side: string): Json {
  const pointer = lists[edit.at % lists.length]!
  const list = (at(document, pointer) ?? []) as Json[]
  const index = list.length > 0 ? edit.at % list.length : 0
  const leaf = numbers(document)
  const change = () => {
    switch (edit.do) {
      case 'set':
        return withValue(
          document,
          leaf[edit.at % leaf.length]!,
          (at(document, leaf[edit.at % leaf.length]!) as number) + 1e-3 * (1 + (edit.value % 3)),
        )
      case 'source': {
        const place = leaf[edit.at % leaf.length]!
        const sources = { ...(document.sources as Json), [place]: { source: 'measured', note: pointerOf(pathOf(document, place)) } }
        return { ...document, sources }
      }
      case 'remove':
        return list.length > 1 ? withValue(document, under(pointer, index), undefined) : document
      case 'add':
        return list.length > 0 && list.length < 4
          ? withValue(document, pointer, [
              ...list.slice(0, index),
              { ...list[index], id: `${side}${edit.value}-${edit.at}` },
              ...list.slice(index),
            ])
          : document
      case 'move':
        return withValue(document, pointer, [...list.slice(index), ...list.slice(0, index)])
      case 'shape':
        return list.length > 0 && 'outline' in list[index]!
          ? withValue(document, under(pointer, index, 'outline'), { shape: 'circle', x: 0, y: 0, radius: 1 + edit.value })
          : document
    }
  }
  return following(document, withIds(change(), document))
}

const played = (script: Edit[], side: string) => script.reduce((document, edit) => edited(document, edit, side), origin)

/** Members of all lists by list and id. */
const membersOf = (document: Json) =>
  new Map(lists.flatMap((pointer) => ((at(document, pointer) ?? []) as Json[]).map((one) => [`${pointer}@${keyOf(one)}`, one] as const)))

const unordered = (document: Json) =>
  lists.reduce(
    (made, pointer) =>
      withValue(
        made,
        pointer,
        [...((at(made, pointer) ?? []) as Json[])].sort((a, b) => (keyOf(a)! < keyOf(b)! ? -1 : 1)),
      ),
    namedById(document),
  )

it('merges any two scripts: nothing lost, nothing misplaced, schema kept, the same from both sides', () => {
  expect(holds(origin), JSON.stringify(holds.errors)).toBe(true)
  let clashed = 0
  fc.assert(
    fc.property(scripts, scripts, (mineScript, theirsScript) => {
      const [mine, theirs] = [played(mineScript, 'm'), played(theirsScript, 't')]
      const { document, clashes } = merge(origin, mine, theirs)
      if (clashes.length > 0) clashed++
      const [before, here, there, merged] = [origin, mine, theirs, document].map(membersOf) as [
        Map<string, Json>,
        Map<string, Json>,
        Map<string, Json>,
        Map<string, Json>,
      ]
      for (const [place, member] of [...here, ...there]) {
        if (!before.has(place)) expect(merged.has(place), `${place} was added and lost`).toBe(true)
        else if (here.has(place) && there.has(place)) expect(merged.has(place), `${place} was kept by both and lost`).toBe(true)
        expect(member).toBeDefined()
      }
      for (const [place, member] of merged)
        for (const [name, value] of Object.entries(member))
          expect(
            [before, here, there].some((side) => same(side.get(place)?.[name], value)) || isObject(value),
            `${place} has a ${name} that nobody gave it`,
          ).toBe(true)
      for (const pointer of lists) expect(keysOf(at(document, pointer) ?? [])).toBeDefined()
      for (const [pointer, source] of Object.entries((document.sources ?? {}) as Record<string, { note?: string }>))
        if (source.note?.startsWith('/')) expect(pointerOf(pathOf(document, pointer))).toBe(source.note)
      expect(holds(document), JSON.stringify(holds.errors)).toBe(true)
      const back = merge(origin, theirs, mine)
      expect(back.clashes.map((clash) => pointerOf(clash.path)).sort()).toEqual(clashes.map((clash) => pointerOf(clash.path)).sort())
      // what clashes is each side's own; with theirs taken there, both ways come to one document
      const settled = clashes.reduce((made, clash) => withOther(made, theirs, clash), document)
      if (clashes.length === 0) expect(same(settled, back.document)).toBe(true)
      // a member that one side removed has lost its place among the others: only the order of its list may differ
      if (!clashes.some((clash) => clash.order)) expect(same(unordered(settled), unordered(back.document))).toBe(true)
      expect(holds(settled), JSON.stringify(holds.errors)).toBe(true)
    }),
    { numRuns: Number(import.meta.env.VITE_MERGE_PAIRS ?? 1000) },
  )
  expect(clashed).toBeGreaterThan(0)
}, 600_000)
