import { Button, Dialog, DialogActions, DialogContent, DialogTitle } from '@mui/material'
import { useState } from 'react'
import type { Finding } from '../api/client'
import { SeverityMark } from './SeverityMark'
import { HandbookLink } from '../shell/HandbookLink'

interface FindingsProps {
  findings: Finding[]
  /** What to call the place of a finding: a letter, a line. */
  placeOf?: (finding: Finding) => string | undefined
  onPoint?: (finding: Finding | undefined) => void
  onGo?: (finding: Finding) => void
  /** Takes the reason for which a finding is accepted; undefined takes the acceptance back. */
  onAccept?: (finding: Finding, why: string | undefined) => void
  /** Makes a finding's remedy, as an edit that can be undone. */
  onRemedy?: (finding: Finding) => void
  /** Whether a finding can be lived with at all; a missing fact cannot. */
  mayAccept?: (finding: Finding) => boolean
  /** Why it is not known whether there are others; undefined where all was looked at. */
  unlooked?: string
  /** What to say where all was looked at and there are none. */
  fine: string
}

/** The margin of findings, worst first; each says what, with numbers, and why it matters. */
export function Findings({ findings, placeOf, onPoint, onGo, onAccept, onRemedy, mayAccept = () => true, unlooked, fine }: FindingsProps) {
  const [asking, setAsking] = useState<Finding>()
  const open = findings.filter((finding) => !finding.accepted)
  const accepted = findings.filter((finding) => finding.accepted)
  return (
    <section className="findings" aria-label="Findings">
      <h2 className="caps">Findings</h2>
      {unlooked !== undefined ? (
        <p className="fine-line" data-unlooked role="status">
          {unlooked}
        </p>
      ) : (
        open.length === 0 && (
          <p className="fine-line">
            <Tick /> {fine}
          </p>
        )
      )}
      {[...open, ...accepted].map((finding, i) => (
        <article
          key={`${finding.rule}${finding.pointer ?? ''}${finding.line ?? ''}${i}`}
          className={`finding ${finding.severity}${finding.accepted ? ' accepted' : ''}`}
          data-rule={finding.rule}
          onPointerEnter={() => onPoint?.(finding)}
          onPointerLeave={() => onPoint?.(undefined)}
        >
          <header>
            <SeverityMark severity={finding.severity} />
            <strong className="caps">{finding.severity}</strong>
            {onGo && placeOf?.(finding) ? (
              <button className="link place" onClick={() => onGo(finding)}>
                {placeOf(finding)}
              </button>
            ) : (
              <span className="place">{placeOf?.(finding)}</span>
            )}
          </header>
          <p>{finding.message}</p>
          <p className="why">
            {finding.accepted ? `Accepted: ${finding.accepted}` : finding.why}{' '}
            <HandbookLink chapter="rules" of={finding.rule} label={`About the rule ${finding.rule}`}>
              handbook
            </HandbookLink>
          </p>
          {onRemedy && finding.remedy && !finding.accepted && (
            <button className="key small" data-remedy={finding.rule} onClick={() => onRemedy(finding)}>
              {finding.remedy.label}
            </button>
          )}
          {onAccept && mayAccept(finding) && (
            <button className="link quiet" onClick={() => (finding.accepted ? onAccept(finding, undefined) : setAsking(finding))}>
              {finding.accepted ? 'no longer accept' : 'accept'}
            </button>
          )}
        </article>
      ))}
      {asking && (
        <AcceptDialog
          finding={asking}
          onClose={(why) => {
            if (why) onAccept?.(asking, why)
            setAsking(undefined)
          }}
        />
      )}
    </section>
  )
}

function AcceptDialog({ finding, onClose }: { finding: Finding; onClose: (why?: string) => void }) {
  const [why, setWhy] = useState('')
  return (
    <Dialog open onClose={() => onClose()} fullWidth maxWidth="xs">
      <form
        onSubmit={(event) => {
          event.preventDefault()
          if (why.trim()) onClose(why.trim())
        }}
      >
        <DialogTitle>Accept with a reason</DialogTitle>
        <DialogContent>
          <p>{finding.message}</p>
          <label className="quiet">
            Reason, kept on the card
            <input className="plain-field" value={why} maxLength={1000} autoFocus onChange={(event) => setWhy(event.target.value)} />
          </label>
        </DialogContent>
        <DialogActions>
          <Button variant="text" onClick={() => onClose()}>
            Leave it open
          </Button>
          <Button type="submit" variant="contained" disabled={!why.trim()}>
            Accept
          </Button>
        </DialogActions>
      </form>
    </Dialog>
  )
}

function Tick() {
  return (
    <svg width="13" height="13" viewBox="0 0 14 14" aria-hidden style={{ flex: 'none' }}>
      <path d="M1.5 7.5L5.5 11.5L12.5 2.5" fill="none" stroke="var(--moss)" strokeWidth="2.2" />
    </svg>
  )
}
