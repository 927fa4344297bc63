import type { Limits } from '../units/limits'
import { isObject, keyOf, type Path } from './members'
import { valueOn } from './merge'
import { pointerAt } from './place'
import { fieldPointer, stepsOf } from './pointer'

/** What a person calls the value that a path leads to: the names of the list's member on the way, then the field's. */
export function nameOf(path: Path, documents: readonly unknown[], limits: (pointer: string) => Limits): string {
  if (path[0] === 'sources') return `source of ${nameOf(stepsOf(path[1]!), documents, limits)}`
  const document = documents.find((one) => pointerAt(one, path) !== undefined)
  const pointer = pointerAt(document, path) ?? fieldPointer(path)
  const members = path.flatMap((step, i) => (step.startsWith('@') ? [memberName(path.slice(0, i + 1), documents)] : []))
  // the four axes have facts of the same names
  const axis = path.flatMap((step, i) => (i > 0 && path[i - 1] === 'axes' && i + 1 < path.length ? [`${step.toUpperCase()} axis`] : []))
  const last = path.at(-1) ?? ''
  const field = last.startsWith('@') ? undefined : (limits(pointer).label ?? spelledOut(last))
  return [...members, ...axis, ...(field === undefined ? [] : [field])].join(', ') || 'the whole document'
}

function memberName(path: Path, documents: readonly unknown[]): string {
  for (const document of documents) {
    const member = valueOn(document, path)
    if (typeof member === 'string') return member
    const known = isObject(member)
      ? [member.name, member.rule, member.kind, member.nozzle].find((one) => typeof one === 'string')
      : undefined
    if (known !== undefined) return known
    if (isObject(member)) return `${spelledOut(path.at(-2) ?? '')} ${keyOf(member) ?? ''}`
  }
  return spelledOut(path.at(-2) ?? '')
}

/** A member's name in words: keepOuts → keep outs. */
const spelledOut = (name: string) => name.replace(/([A-Z])/g, ' $1').toLowerCase()

/** A value as a sentence can hold it. */
export function shown(value: unknown, unit?: string): string {
  if (value === undefined || value === null) return 'not there'
  if (typeof value === 'number') return unit ? `${value} ${unit}` : String(value)
  if (typeof value === 'boolean') return value ? 'yes' : 'no'
  if (typeof value === 'string') return value.length > 80 ? `${value.slice(0, 79)}…` : value || 'empty'
  if (Array.isArray(value)) return `${value.length} entries`
  const parts = Object.entries(value).filter(([name, one]) => name !== 'id' && ['string', 'number'].includes(typeof one))
  return parts.map(([name, one]) => `${spelledOut(name)} ${String(one)}`).join(', ')
}
