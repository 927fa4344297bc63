import type { Card, TrialLimits } from '../api/client'

/**
 * The card as drawn in a trial with limits of its own. What follows from them is computed by the server; this is for the lines on the
 * sheet.
 */
export function tightened(card: Card, limits: TrialLimits | null | undefined): Card {
  if (!limits) return card
  const use = card.envelope?.use
  const height = [use?.height, limits.height].filter((value) => value !== undefined && value !== null)
  return {
    ...card,
    envelope: {
      ...card.envelope,
      use: { ...use, height: height.length > 0 ? Math.min(...height) : undefined, margin: Math.max(use?.margin ?? 0, limits.margin ?? 0) },
      keepOuts: [...(card.envelope?.keepOuts ?? []), ...(limits.keepOuts ?? [])],
    },
  }
}
