import { newId } from '../units/newId'

/** Steps to a value of a document; a member of a list is named by its id, so that the way leads to it wherever it stands. */
export type Path = readonly string[]

export type Json = Record<string, unknown>

export const isObject = (value: unknown): value is Json => typeof value === 'object' && value !== null && !Array.isArray(value)

/** What identifies a member of a list: its id, or itself where it is a word. */
export function keyOf(member: unknown): string | undefined {
  if (typeof member === 'string') return member
  return isObject(member) && typeof member.id === 'string' && member.id !== '' ? member.id : undefined
}

/** The keys of a list whose members can be told apart; undefined for any other value. */
export function keysOf(list: unknown): string[] | undefined {
  if (!Array.isArray(list)) return undefined
  const keys = list.map(keyOf)
  return keys.every((key) => key !== undefined) && new Set(keys).size === keys.length ? keys : undefined
}

/** Whether two values are the same; a member without a value is as good as none. */
export function same(a: unknown, b: unknown): boolean {
  if (Object.is(a, b) || (a ?? undefined) === (b ?? undefined)) return true
  if (Array.isArray(a)) return Array.isArray(b) && a.length === b.length && a.every((value, i) => same(value, b[i]))
  if (!isObject(a) || !isObject(b)) return false
  return Object.keys(a).every((name) => same(a[name], b[name])) && Object.keys(b).every((name) => name in a || same(undefined, b[name]))
}

/** The document with an id for every member of a list that has none; one that was rebuilt at its place keeps the id it had there. */
export function withIds<T>(after: T, before?: unknown): T {
  return given(after, before) as T
}

function given(after: unknown, before: unknown): unknown {
  if (Object.is(after, before)) return after
  if (Array.isArray(after)) {
    const old = Array.isArray(before) ? (before as unknown[]) : []
    const list = after as unknown[]
    const known = new Map(old.map((member) => [keyOf(member), member]))
    known.delete(undefined)
    const taken = new Set(list.map(keyOf))
    const named = list.map((member, i) => {
      const inner = given(member, known.get(keyOf(member)) ?? old[i])
      if (!isObject(inner) || keyOf(inner) !== undefined) return inner
      const id = keyOf(old[i])
      const own = id !== undefined && !taken.has(id) ? id : newId()
      taken.add(own)
      return { ...inner, id: own }
    })
    return named.every((member, i) => Object.is(member, list[i])) ? after : named
  }
  if (!isObject(after)) return after
  const was = isObject(before) ? before : {}
  const entries = Object.entries(after).map(([name, value]) => [name, given(value, was[name])] as const)
  return entries.every(([name, value]) => Object.is(value, after[name])) ? after : Object.fromEntries(entries)
}
