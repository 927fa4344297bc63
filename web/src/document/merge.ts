import { withValue } from './pointer'

/** One difference between two documents. */
export interface Change {
  pointer: string
  /** The new value; undefined where it was removed. */
  value: unknown
}

const isObject = (value: unknown): value is Record<string, unknown> => typeof value === 'object' && value !== null && !Array.isArray(value)

const escape = (step: string) => step.replaceAll('~', '~0').replaceAll('/', '~1')

/** What leads from one document to the other. Lists of different length differ as a whole. */
export function changesBetween(from: unknown, to: unknown, at = ''): Change[] {
  if (Object.is(from, to)) return []
  if (isObject(from) && isObject(to))
    return [...new Set([...Object.keys(from), ...Object.keys(to)])].flatMap((name) =>
      changesBetween(from[name], to[name], `${at}/${escape(name)}`),
    )
  if (Array.isArray(from) && Array.isArray(to) && from.length === to.length)
    return to.flatMap((value: unknown, index) => changesBetween(from[index], value, `${at}/${index}`))
  return JSON.stringify(from) === JSON.stringify(to) ? [] : [{ pointer: at, value: to }]
}

/** Their document with what was changed here since the common base; where both changed a value, the one typed here stands. */
export function merged<T>(base: T, mine: T, theirs: T): T {
  return changesBetween(base, mine).reduce((document, change) => withValue(document, change.pointer, change.value), theirs)
}
