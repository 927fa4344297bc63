import type { DocumentHead } from '../api/client'
import { bedSize } from '../drawing/outline'

/** Whether a card answers a search: by name with a letter or two wrong, by flavour or nozzle material, or by size as `180x160`. */
export function matches(head: DocumentHead, search: string): boolean {
  const words = search.toLowerCase().split(/\s+/).filter(Boolean)
  return words.every((word) => bySize(head, word) || byName(head, word))
}

function bySize(head: DocumentHead, word: string): boolean {
  const asked = /^[ø⌀]?(\d+(?:[.,]\d+)?)(?:[x×*](\d+(?:[.,]\d+)?))?(?:[x×*](\d+(?:[.,]\d+)?))?$/.exec(word)
  if (!asked) return false
  const { width, depth } = bedSize(head.card?.bed)
  const has = [width, depth, head.card?.height ?? undefined]
  return asked.slice(1).every((text, i) => text === undefined || Math.abs(Number(text.replace(',', '.')) - (has[i] ?? -1)) <= 1)
}

function byName(head: DocumentHead, word: string): boolean {
  const texts = [head.name, head.card?.flavour ?? '', ...(head.card?.nozzles ?? []).map((nozzle) => nozzle.material ?? '')].map((text) =>
    text.toLowerCase(),
  )
  return texts.some((text) => text.includes(word) || text.split(/[^\p{L}\p{N}]+/u).some((part) => near(part, word)))
}

/** One letter wrong in four, two in eight; the end of a name may be missing. */
function near(name: string, word: string): boolean {
  const allowed = Math.min(2, Math.floor(word.length / 4))
  return allowed > 0 && [word.length - 1, word.length, word.length + 1].some((length) => distance(name.slice(0, length), word) <= allowed)
}

/** Edit distance with swapped neighbours as one edit (optimal string alignment). */
export function distance(a: string, b: string): number {
  const rows: number[][] = [Array.from({ length: b.length + 1 }, (_, j) => j)]
  for (let i = 1; i <= a.length; i++) {
    const row = [i]
    for (let j = 1; j <= b.length; j++) {
      const change = rows[i - 1]![j - 1]! + (a[i - 1] === b[j - 1] ? 0 : 1)
      row[j] = Math.min(change, rows[i - 1]![j]! + 1, row[j - 1]! + 1)
      if (i > 1 && j > 1 && a[i - 1] === b[j - 2] && a[i - 2] === b[j - 1]) row[j] = Math.min(row[j]!, rows[i - 2]![j - 2]! + 1)
    }
    rows.push(row)
  }
  return rows[a.length]![b.length]!
}
