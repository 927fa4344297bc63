import type { CardSummary } from '../api/client'
import type { Word } from '../open-document/description'
import { bedSize } from '../drawing/outline'

/** What is searched: a name, what is known of the machine, and further words that describe it. */
export interface Sought {
  name: string
  card?: CardSummary | null | undefined
  about?: string
}

/**
 * Whether a machine answers a search: by name or words with a letter or two wrong, by flavour, motion or nozzle material, or by size as
 * `180x160`.
 */
export function matches(sought: Sought, search: string, wordFor: Word): boolean {
  return wordsOf(search).every((word) => bySize(sought, word) || byName(sought, word, wordFor))
}

/** Machines that answer a search; those whose name holds all of it come before those that are only of such a size or kind. */
export function found<T extends Sought>(all: readonly T[], search: string, wordFor: Word): T[] {
  const named = (one: Sought) => wordsOf(search).every((word) => one.name.toLowerCase().includes(word))
  const those = all.filter((one) => matches(one, search, wordFor))
  return search.trim() === '' ? those : [...those.filter(named), ...those.filter((one) => !named(one))]
}

const wordsOf = (search: string) => search.toLowerCase().split(/\s+/).filter(Boolean)

function bySize({ card }: Sought, word: string): boolean {
  const asked = /^[ø⌀]?(\d+(?:[.,]\d+)?)(?:[x×*](\d+(?:[.,]\d+)?))?(?:[x×*](\d+(?:[.,]\d+)?))?$/.exec(word)
  if (!asked) return false
  const { width, depth } = bedSize(card?.bed)
  const has = [width, depth, card?.height ?? undefined]
  return asked.slice(1).every((text, i) => text === undefined || Math.abs(Number(text.replace(',', '.')) - (has[i] ?? -1)) <= 1)
}

function byName({ name, about, card }: Sought, word: string, wordFor: Word): boolean {
  const texts = [
    name,
    about ?? '',
    card?.flavour ?? '',
    wordFor('/motion/layout', card?.layout) ?? '',
    wordFor('/heat/housing', card?.housing) ?? '',
    ...(card?.tags ?? []),
    ...(card?.nozzles ?? []).map((nozzle) => nozzle.material ?? ''),
  ].map((text) => text.toLowerCase())
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
