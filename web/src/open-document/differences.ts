import { isObject, keyOf, keysOf, same, type Path } from './members'
import { namedById } from './place'

/** The ways to all values in which two documents differ; members of lists are the same by their id. */
export function differences(from: unknown, to: unknown): Path[] {
  return below(namedById(from), namedById(to), [])
}

function below(from: unknown, to: unknown, path: Path): Path[] {
  if (same(from, to)) return []
  if (isObject(from) && isObject(to))
    return [...new Set([...Object.keys(from), ...Object.keys(to)])].flatMap((name) => below(from[name], to[name], [...path, name]))
  if (!keysOf(from) || !keysOf(to)) return [path]
  const [left, right] = [from as unknown[], to as unknown[]]
  const keys = [...new Set([...keysOf(left)!, ...keysOf(right)!])]
  const inner = keys.flatMap((key) =>
    below(
      left.find((one) => keyOf(one) === key),
      right.find((one) => keyOf(one) === key),
      [...path, `@${key}`],
    ),
  )
  return inner.length > 0 ? inner : [path]
}
