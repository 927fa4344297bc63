import { isObject, keyOf, keysOf, same, type Json, type Path } from './members'
import { namedById, namedByPlace } from './place'
import { isWithin, pointerOf } from './pointer'

/** A value that was changed on both sides, and not to the same. */
export interface Clash {
  path: Path
  /** Only the order of the list at the path is meant. */
  order?: boolean
}

export interface Merge<T> {
  /** Both sides' changes; at a clash, mine. */
  document: T
  clashes: Clash[]
}

/** What became of a document on two sides since their common base. Members of lists are the same by their id, wherever they stand. */
export function merge<T>(base: T, mine: T, theirs: T): Merge<T> {
  if (same(mine, theirs) || same(base, theirs)) return { document: mine, clashes: [] }
  if (same(base, mine)) return { document: theirs, clashes: [] }
  const clashes: Clash[] = []
  const own = namedById(mine)
  const made = value(namedById(base), own, namedById(theirs), [], clashes) as T
  const document = clashes.reduce((at, clash) => withSourcesBelow(at, own, pointerOf(clash.path)), made)
  return { document: namedByPlace(document), clashes }
}

/** The document with what another has at a clash in place of its own. */
export function withOther<T>(document: T, other: T, clash: Clash): T {
  const from = namedById(other)
  const made = put(namedById(document), from, clash.path, clash.order ?? false) as T
  return namedByPlace(withSourcesBelow(made, from, pointerOf(clash.path)))
}

/** A member that comes back brings what was said of where its facts come from: it went when the member did. */
function withSourcesBelow<T>(document: T, other: T, pointer: string): T {
  const [own, from] = [document, other].map((one) => ((isObject(one) ? one.sources : undefined) ?? {}) as Json) as [Json, Json]
  const missing = Object.entries(from).filter(([place]) => place !== pointer && isWithin(place, pointer) && !(place in own))
  return missing.length > 0 ? { ...document, sources: { ...own, ...Object.fromEntries(missing) } } : document
}

/** The value that a path leads to; its last member may be missing. */
export function valueOn(document: unknown, path: Path): unknown {
  return path.reduce<unknown>((at, step) => {
    if (Array.isArray(at)) return memberOf(at, step)
    return isObject(at) ? at[step] : undefined
  }, namedById(document))
}

function value(base: unknown, mine: unknown, theirs: unknown, path: Path, clashes: Clash[]): unknown {
  if (same(mine, theirs) || same(base, theirs)) return mine
  if (same(base, mine)) return theirs
  if (isObject(mine) && isObject(theirs) && isAlike(mine, theirs))
    return objects(isObject(base) && isAlike(base, mine) ? base : {}, mine, theirs, path, clashes)
  const lists = [base ?? [], mine, theirs]
  if (lists.every((list) => keysOf(list))) return members(lists as [unknown[], unknown[], unknown[]], path, clashes)
  clashes.push({ path })
  return mine
}

/**
 * Whether two objects are of one sort. What has no identity is what its shape or kind says; a circle is no rectangle with other members.
 */
export const isAlike = (a: Json, b: Json) => a.shape === b.shape && (a.id !== undefined || a.kind === b.kind)

function objects(base: Json, mine: Json, theirs: Json, path: Path, clashes: Clash[]): Json {
  const names = [...new Set([...Object.keys(theirs), ...Object.keys(mine)])]
  const entries = names.map((name) => [name, value(base[name], mine[name], theirs[name], [...path, name], clashes)] as const)
  return Object.fromEntries(entries.filter(([, merged]) => merged !== undefined))
}

function members([base, mine, theirs]: [unknown[], unknown[], unknown[]], path: Path, clashes: Clash[]): unknown[] {
  const keys = [...new Set([base, mine, theirs].flatMap((list) => keysOf(list)!))]
  const merged = new Map<string, unknown>()
  for (const key of keys) {
    const [was, here, there] = [base, mine, theirs].map((list) => list.find((one) => keyOf(one) === key))
    const one = value(was, here, there, [...path, `@${key}`], clashes)
    if (one !== undefined) merged.set(key, one)
  }
  const order = ordered([base, mine, theirs].map((list) => keysOf(list)!) as [string[], string[], string[]], merged)
  if (order.clash) clashes.push({ path, order: true })
  return order.keys.map((key) => merged.get(key))
}

/** The order of merged members: that of the side which moved any; new ones stand behind the member they were put behind. */
function ordered([base, mine, theirs]: [string[], string[], string[]], merged: Map<string, unknown>) {
  const common = new Set(base.filter((key) => mine.includes(key) && theirs.includes(key) && merged.has(key)))
  const [was, here, there] = [base, mine, theirs].map((keys) => keys.filter((key) => common.has(key)))
  const clash = !same(was, here) && !same(was, there) && !same(here, there)
  const back = same(was, here) ? there! : here!
  const behind = new Map<string | undefined, string[]>()
  const placed = new Set(back)
  // both sides in an order that does not depend on which of them is mine
  for (const side of [mine, theirs].sort((a, b) => (JSON.stringify(a) < JSON.stringify(b) ? -1 : 1))) {
    let anchor: string | undefined
    for (const key of side) {
      if (common.has(key)) anchor = key
      else if (merged.has(key) && !placed.has(key)) {
        placed.add(key)
        behind.set(anchor, [...(behind.get(anchor) ?? []), key])
      }
    }
  }
  return { keys: [undefined, ...back].flatMap((key) => [...(key === undefined ? [] : [key]), ...(behind.get(key) ?? [])]), clash }
}

const memberOf = (list: unknown[], step: string) =>
  step.startsWith('@') ? list.find((one) => keyOf(one) === step.slice(1)) : list[Number(step)]

function put(document: unknown, other: unknown, path: Path, order: boolean): unknown {
  const [step, ...rest] = path
  if (step === undefined) return order ? inOrderOf(document as unknown[], other as unknown[]) : other
  if (Array.isArray(document) || Array.isArray(other))
    return putMember((document ?? []) as unknown[], (other ?? []) as unknown[], step, rest, order)
  const [own, from] = [isObject(document) ? document : {}, isObject(other) ? other : {}]
  const inner = put(own[step], from[step], rest, order)
  const { [step]: old, ...others } = own
  if (inner === undefined) return others
  return old === undefined ? { ...others, [step]: inner } : { ...own, [step]: inner }
}

function putMember(list: unknown[], other: unknown[], step: string, rest: Path, order: boolean): unknown[] {
  const inner = put(memberOf(list, step), memberOf(other, step), rest, order)
  const at = list.findIndex((one) => one === memberOf(list, step))
  if (inner === undefined) return list.filter((_, i) => i !== at)
  if (at >= 0) return list.map((one, i) => (i === at ? inner : one))
  const before = other.slice(0, other.indexOf(memberOf(other, step))).map(keyOf)
  const behind = list.findLastIndex((one) => before.includes(keyOf(one)))
  return [...list.slice(0, behind + 1), inner, ...list.slice(behind + 1)]
}

function inOrderOf(list: unknown[], other: unknown[]): unknown[] {
  const places = new Map(other.map((one, i) => [keyOf(one), i]))
  const known = list.filter((one) => places.has(keyOf(one))).sort((a, b) => places.get(keyOf(a))! - places.get(keyOf(b))!)
  return list.map((one) => (places.has(keyOf(one)) ? known.shift() : one))
}
