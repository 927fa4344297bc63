import type { Edit } from '../api/client'
import { valueAt, withValue } from '../open-document/pointer'

/** A document with the edits of a remedy made, lines from the last to the first so that their numbers stay true. */
export function withEdits<T extends object>(document: T, edits: Edit[]): T {
  return [...edits]
    .sort((a, b) => (b.line ?? 0) - (a.line ?? 0))
    .reduce((edited, { how, pointer, line, text, value }) => {
      if (!pointer) return edited
      if (how === 'set-fact') return withValue(edited, pointer, value ?? undefined)
      const lines = withoutLastBreak(String(valueAt(edited, pointer) ?? '')).split('\n')
      const at = Math.min(Math.max(1, line ?? 1), lines.length)
      const added = (text ?? '').split('\n')
      if (how === 'insert-before') lines.splice(at - 1, 0, ...added)
      else if (how === 'insert-after') lines.splice(at, 0, ...added)
      else if (how === 'replace') lines.splice(at - 1, 1, ...added)
      else lines.splice(at - 1, 1)
      return withValue(edited, pointer, `${lines.join('\n')}\n`)
    }, document)
}

const withoutLastBreak = (text: string) => (text.endsWith('\n') ? text.slice(0, -1) : text)
