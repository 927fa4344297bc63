import type { Finding } from '../api/client'
import { useCard } from './CardContext'
import { withEdits } from '../findings/edits'

/** Makes a finding's remedy on the card, as one step that can be undone. */
export function useRemedy(): (finding: Finding) => void {
  const { change } = useCard()
  return (finding) => change((before) => withEdits(before, finding.remedy?.edits ?? []))
}
