import type { DocumentHead } from '../api/client'
import { bedSize } from '../drawing/outline'

const area = (head: DocumentHead) => {
  const { width, depth } = bedSize(head.card?.bed)
  return (width ?? 0) * (depth ?? 0)
}
const trouble = (head: DocumentHead) => 10_000 * (head.card?.stops ?? 0) + 100 * (head.card?.cautions ?? 0) + (head.card?.notes ?? 0)

/** Ways to put cards in order. */
export const orders = {
  name: { label: 'name', compare: (a: DocumentHead, b: DocumentHead) => a.name.localeCompare(b.name) },
  size: { label: 'size of bed', compare: (a: DocumentHead, b: DocumentHead) => area(a) - area(b) },
  saved: { label: 'last change', compare: (a: DocumentHead, b: DocumentHead) => b.savedAt.localeCompare(a.savedAt) },
  findings: { label: 'findings', compare: (a: DocumentHead, b: DocumentHead) => trouble(b) - trouble(a) },
}

export type Order = keyof typeof orders
