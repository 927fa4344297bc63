import type { Reason } from '../api/client'

/** Why something fits or does not, with what would mend it where that can be computed. */
export function Reasons({ reasons, onRemedy }: { reasons: Reason[]; onRemedy?: ((reason: Reason) => void) | undefined }) {
  return reasons.map((reason) => (
    <p
      key={reason.message}
      className={['reason', reason.verdict === 'does-not-fit' && 'no', reason.strong && 'strong'].filter(Boolean).join(' ')}
    >
      {reason.message}{' '}
      {reason.remedy && onRemedy && (
        <button className="link" onClick={() => onRemedy(reason)}>
          {reason.remedy.label}
        </button>
      )}
    </p>
  ))
}
