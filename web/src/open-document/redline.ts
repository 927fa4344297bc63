import { isObject, keyOf, keysOf, same, type Json, type Path } from './members'
import { isAlike, valueOn, withOther } from './merge'
import { namedById } from './place'
import { pointerOf } from './pointer'

/** A value in which two documents differ. */
export interface Difference {
  path: Path
  /** Only the order of the list at the path is meant. */
  order?: boolean
  mine: unknown
  theirs: unknown
}

/**
 * All values in which two documents differ, each of which can be taken over by itself. Where a fact comes from is told by itself only where
 * the fact is the same: with a fact its source comes along.
 */
export function redline(mine: unknown, theirs: unknown): Difference[] {
  const found = below(namedById(mine), namedById(theirs), [])
  const facts = new Set(found.filter(({ path }) => path[0] !== 'sources').map(({ path }) => pointerOf(path)))
  return found.filter(({ path }) => path[0] !== 'sources' || path[1] === undefined || !facts.has(path[1]))
}

/** Which side has changed a value since a state that both come from. */
export function changedBy(
  ancestor: unknown,
  { path, order }: Difference,
  mine: unknown,
  theirs: unknown,
): 'mine' | 'theirs' | 'both' | 'neither' {
  const value = (document: unknown) => {
    const found = valueOn(document, path)
    return order ? (keysOf(found) ?? found) : found
  }
  const before = value(namedById(ancestor))
  const [here, there] = [!same(before, value(namedById(mine))), !same(before, value(namedById(theirs)))]
  if (here && there) return 'both'
  if (here) return 'mine'
  return there ? 'theirs' : 'neither'
}

/** Mine with differences taken over from theirs. */
export function taken<T>(mine: T, theirs: T, chosen: readonly Difference[]): T {
  // what comes and goes first: an order is that of what is there
  const inTurn = [...chosen].sort((a, b) => Number(a.order ?? false) - Number(b.order ?? false))
  return inTurn.reduce((document, { path, order }) => {
    const made = withOther(document, theirs, { path, ...(order && { order }) })
    if (order || path[0] === 'sources') return made
    const source = ['sources', pointerOf(path)]
    return valueOn(theirs, source) === undefined && valueOn(made, source) === undefined ? made : withOther(made, theirs, { path: source })
  }, mine)
}

function below(mine: unknown, theirs: unknown, path: Path): Difference[] {
  if (same(mine, theirs)) return []
  // where a fact comes from is said and dated as a whole
  if (path[0] === 'sources' && path.length === 2) return [{ path, mine, theirs }]
  if (isObject(mine) && isObject(theirs) && isAlike(mine, theirs))
    return [...new Set([...Object.keys(mine), ...Object.keys(theirs)])].flatMap((name) => below(mine[name], theirs[name], [...path, name]))
  const [left, right] = [keysOf(mine), keysOf(theirs)]
  if (!left || !right) return [{ path, mine, theirs }]
  const member = (list: unknown, key: string) => (list as unknown[]).find((one) => keyOf(one) === key)
  const inner = [...new Set([...left, ...right])].flatMap((key) => below(member(mine, key), member(theirs, key), [...path, `@${key}`]))
  const common = (keys: string[], others: string[]) => keys.filter((key) => others.includes(key))
  return same(common(left, right), common(right, left)) ? inner : [...inner, { path, order: true, mine, theirs }]
}

/**
 * Another document with the identities of mine: documents without a common past have members of one id that are not one thing, and are
 * the same where they are called the same.
 */
export const named = <T>(theirs: T, mine: unknown): T => renamed(theirs, mine) as T

function renamed(theirs: unknown, mine: unknown): unknown {
  if (Array.isArray(theirs)) return renamedMembers(theirs, Array.isArray(mine) ? mine : [])
  if (!isObject(theirs)) return theirs
  const own = isObject(mine) ? mine : {}
  return Object.fromEntries(Object.entries(theirs).map(([name, value]) => [name, renamed(value, own[name])]))
}

function renamedMembers(theirs: readonly unknown[], mine: readonly unknown[]): unknown[] {
  const nameOf = (member: unknown) => (isObject(member) && typeof member.name === 'string' ? member.name : undefined)
  const ids = new Set(mine.map(keyOf))
  return theirs.map((member) => {
    const name = nameOf(member)
    if (!isObject(member) || name === undefined || theirs.filter((other) => nameOf(other) === name).length > 1) return member
    const same = mine.filter((other) => nameOf(other) === name)
    const id = keyOf(member)
    if (same.length === 1) return { ...(renamed(member, same[0]) as Json), id: keyOf(same[0]) ?? id }
    // an id has 40 characters at most
    return id !== undefined && ids.has(id) ? { ...member, id: `${id.slice(0, 36)}-2` } : member
  })
}
