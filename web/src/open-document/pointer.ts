/** The steps of an RFC 6901 pointer. */
export function stepsOf(pointer: string): string[] {
  return pointer === ''
    ? []
    : pointer
        .slice(1)
        .split('/')
        .map((step) => step.replaceAll('~1', '/').replaceAll('~0', '~'))
}

/** The pointer of steps. */
export const pointerOf = (steps: readonly (string | number)[]) =>
  steps.map((step) => `/${String(step).replaceAll('~', '~0').replaceAll('/', '~1')}`).join('')

/** The pointer that steps lead to from another. */
export const under = (pointer: string, ...steps: readonly (string | number)[]) => pointer + pointerOf(steps)

/** The pointer one step above. */
export const parentOf = (pointer: string) => pointerOf(stepsOf(pointer).slice(0, -1))

/** Whether a place is the one a pointer names or lies below it. */
export const isWithin = (place: string | null | undefined, pointer: string) =>
  place === pointer || (place?.startsWith(pointer + '/') ?? false)

/** The value at a pointer, or undefined. */
export function valueAt(document: unknown, pointer: string): unknown {
  return stepsOf(pointer).reduce<unknown>(
    (at, step) => (typeof at === 'object' && at !== null ? (at as Record<string, unknown>)[step] : undefined),
    document,
  )
}

/** A document with another value at a pointer; undefined removes a member. Missing parents are made; what is not touched is shared. */
export function withValue<T>(document: T, pointer: string, value: unknown): T {
  return changed(document, stepsOf(pointer), value) as T
}

function changed(at: unknown, steps: string[], value: unknown): unknown {
  const [step, ...rest] = steps
  if (step === undefined) return value
  if (Array.isArray(at)) {
    const index = step === '-' ? at.length : Number(step)
    const copy: unknown[] = [...(at as unknown[])]
    if (rest.length === 0 && value === undefined) copy.splice(index, 1)
    else copy[index] = changed(copy[index], rest, value)
    return copy
  }
  const whole = (at ?? {}) as Record<string, unknown>
  const { [step]: inner, ...others } = whole
  const next = changed(inner, rest, value)
  if (next === undefined) return others
  // members keep their order, so that a saved document differs only where it was changed
  return step in whole ? { ...whole, [step]: next } : { ...others, [step]: next }
}

/** The pointer by which a schema knows what a path leads to: any member of a list is like its first. */
export const fieldPointer = (path: readonly string[]) => pointerOf(path.map((step) => (step.startsWith('@') ? '0' : step)))
