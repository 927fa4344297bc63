import { isObject, keyOf, keysOf, same, type Json, type Path } from './members'
import { pointerOf, stepsOf } from './pointer'

const member = '@'

/** The path that a pointer names in a document; steps that lead to no known member stay as they are. */
export function pathOf(document: unknown, pointer: string): Path {
  let at: unknown = document
  return stepsOf(pointer).map((step) => {
    if (!Array.isArray(at)) {
      at = isObject(at) ? at[step] : undefined
      return step
    }
    const list = at as unknown[]
    at = list[Number(step)]
    const key = isObject(at) && keysOf(list) ? keyOf(at) : undefined
    return key === undefined ? step : member + key
  })
}

/** Where a path leads in a document, as a pointer; undefined where the member it names is not there. */
export function pointerAt(document: unknown, path: Path): string | undefined {
  let at: unknown = document
  const steps: string[] = []
  for (const step of path) {
    if (Array.isArray(at) && step.startsWith(member)) {
      const index = at.findIndex((one) => isObject(one) && keyOf(one) === step.slice(member.length))
      if (index < 0) return undefined
      steps.push(String(index))
      at = at[index]
    } else {
      steps.push(step)
      at = inner(at, step)
    }
  }
  return pointerOf(steps)
}

/** The document with every pointer that it holds (sources, accepted findings) naming members by id, as it is merged. */
export const namedById = <T>(document: T): T => withPointers(document, (pointer) => pointerOf(pathOf(document, pointer)))

/** The way back: pointers by place; what pointed to a member that is gone is gone with it. */
export const namedByPlace = <T>(document: T): T => withPointers(document, (pointer) => pointerAt(document, stepsOf(pointer)))

/** A document after an edit: what points to members follows them where the edit itself did not see to it. */
export function following<T>(before: T, after: T): T {
  const [old, now] = [pointersOf(before), pointersOf(after)]
  const carried = (pointer: string) => pointerAt(after, pathOf(before, pointer))
  if ([...now.keys()].every((pointer) => !old.has(pointer) || carried(pointer) === pointer)) return after
  return withPointers(after, (pointer) => (old.has(pointer) && same(old.get(pointer), now.get(pointer)) ? carried(pointer) : pointer))
}

/** What a document says by pointer. */
function pointersOf(document: unknown): Map<string, unknown> {
  const { sources, accepted } = (isObject(document) ? document : {}) as { sources?: Json; accepted?: { at?: string }[] }
  return new Map([...Object.entries(sources ?? {}), ...(accepted ?? []).map((one) => [one.at ?? '', one] as const)])
}

function withPointers<T>(document: T, to: (pointer: string) => string | undefined): T {
  if (!isObject(document)) return document
  const { sources, accepted } = document as { sources?: Json; accepted?: { at?: string }[] }
  const moved = Object.entries(sources ?? {}).flatMap(([pointer, source]) => {
    const target = to(pointer)
    return target === undefined ? [] : [[target, source, target === pointer] as const]
  })
  // of two that come to one place, the one that stood there by itself wins
  moved.sort((a, b) => Number(a[2]) - Number(b[2]))
  const kept = (accepted ?? []).flatMap((one) => {
    const target = to(one.at ?? '')
    return target === undefined ? [] : [target === (one.at ?? '') ? one : { ...one, at: target }]
  })
  return {
    ...document,
    ...(sources ? { sources: Object.fromEntries(moved.map(([target, source]) => [target, source])) } : {}),
    ...(accepted ? { accepted: kept } : {}),
  }
}

function inner(at: unknown, step: string): unknown {
  if (Array.isArray(at)) return at[Number(step)]
  return isObject(at) ? at[step] : undefined
}
