import type { ReviewedDocument } from '../api/client'
import { SeverityMark } from '../findings/SeverityMark'
import { VerdictMark } from '../findings/VerdictMark'

export const standingWords: Record<ReviewedDocument['standing'], string> = {
  new: 'new here',
  same: 'the same as',
  different: 'differs from',
  repeated: 'here twice',
  damaged: 'cannot be taken',
}

/** How a document stands to what is here, by a mark that differs in shape. */
export function StandingMark({ standing }: { standing: ReviewedDocument['standing'] }) {
  if (standing === 'damaged') return <SeverityMark severity="stop" size={12} />
  if (standing === 'different') return <SeverityMark severity="caution" size={12} />
  if (standing === 'new') return <VerdictMark verdict="fits" />
  return <SeverityMark severity="note" size={12} />
}
