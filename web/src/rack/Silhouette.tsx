import type { ReactNode } from 'react'
import { Link } from 'react-router'
import type { DocumentHead, Match, PatternHead } from '../api/client'
import { useHatch } from '../drawing/Hatches'
import { isShipped, redlineAgainst } from '../open-card/patterns'
import { bedOutline, bedSize, outlinePath } from '../drawing/outline'
import { toX, toY } from '../drawing/view'
import { SeverityMark } from '../findings/SeverityMark'
import { useWords } from '../open-document/description'
import { VerdictMark, verdictWords } from '../findings/VerdictMark'
import { plain } from '../units/format'

const unknown = 120

/** The figure that gives the scale: an A4 sheet, ISO 216. */
export function A4Sheet({ scale }: { scale: number }) {
  return (
    <span className="stand">
      <svg width={210 * scale + 2} height={297 * scale + 1} aria-hidden>
        <path d={`M1 ${297 * scale + 1}V1H${210 * scale + 1}V${297 * scale + 1}`} fill="none" stroke="var(--hair)" strokeWidth="1.5" />
      </svg>
    </span>
  )
}

interface SilhouetteProps {
  head: DocumentHead
  scale: number
  /** Its revision letter and proof; empty until that is known. */
  state: string
  menu: ReactNode
  match?: Match
  /** The pattern that it was made from, where there is a newer version of it. */
  newer?: PatternHead
  /** Whether it is chosen to be saved with others. */
  chosen: boolean
  onChoose: (on: boolean) => void
}

/** A card on the shelf: the plan of its bed, its name, what it is, and what is found about it. */
export function Silhouette({ head, scale, state, menu, match, newer, chosen, onChoose }: SilhouetteProps) {
  const words = useWords('card')
  const hatch = useHatch()
  const { card } = head
  const { width, depth } = bedSize(card?.bed)
  const known = Boolean(width && depth)
  const [w, d] = [width ?? unknown, depth ?? unknown]
  const view = { scale, x0: 1, y0: d * scale + 1 }
  const outline = bedOutline(card?.bed) ?? { shape: 'rectangle' as const, x: 0, y: 0, width: w, depth: d }
  const size = (value: number | null | undefined) => (value ? plain(value, 1) : '?')
  const round = card?.bed?.shape === 'ellipse' && width === depth
  return (
    <li className="silhouette">
      <Link to={`/cards/${head.id}`} aria-label={head.name || 'card without a name'}>
        <span className="stand">
          <svg width={w * scale + 8} height={d * scale + 1} style={{ overflow: 'visible' }} aria-hidden>
            <path
              d={outlinePath(outline, view)}
              fill="var(--sheet)"
              stroke="var(--ink)"
              strokeWidth="1.6"
              strokeDasharray={known ? undefined : '7 4'}
            />
            {card?.keepOuts.map((keepOut, i) => (
              <path key={i} d={outlinePath(keepOut.outline, view)} fill={hatch(keepOut.kind)} stroke="var(--ink)" strokeWidth="0.9" />
            ))}
            {card?.origin && <circle cx={toX(view, card.origin.x)} cy={toY(view, card.origin.y)} r="3.6" fill="var(--madder)" />}
          </svg>
        </span>
        <span className="about">
          <strong>{head.name || 'without a name'}</strong>
          <span className="mono">
            {round ? `Ø${size(width)}` : `${size(width)} × ${size(depth)}`} × {size(card?.height)}
          </span>
          <span className="quiet">
            {card?.nozzles.map((nozzle) => `${size(nozzle.diameter)} ${nozzle.material ?? ''}`.trim()).join(', ')} ·{' '}
            {words('/firmware/flavour', card?.flavour) ?? 'flavour ?'}
          </span>
          <span className="counts">
            <span className="quiet">{state}</span>
            {card && <Counts stops={card.stops} cautions={card.cautions} notes={card.notes} />}
          </span>
          {match && (
            <span className="match" data-match={match.verdict} title={match.reasons.map((reason) => reason.message).join('\n')}>
              <VerdictMark verdict={match.verdict} /> {match.verdict === 'fits' ? verdictWords.fits : match.reasons[0]?.message}
            </span>
          )}
        </span>
      </Link>
      {newer && card?.pattern && (
        <Link className="newer-pattern" to={redlineAgainst(head.id, card.pattern, newer)}>
          version {newer.version} of its pattern is there
        </Link>
      )}
      {menu}
      <input
        type="checkbox"
        className="choose-card"
        aria-label={`choose ${head.name || 'card without a name'}`}
        checked={chosen}
        onChange={(event) => onChoose(event.target.checked)}
      />
    </li>
  )
}

interface PatternSilhouetteProps {
  pattern: PatternHead
  scale: number
  /** Starts a card from it; a pattern beside a card that was made from it starts none. */
  onStart?: () => void
}

/** A pattern on its shelf: it can be looked at, or a card started from it at once; or beside a card, as its maker says it. */
export function PatternSilhouette({ pattern, scale, onStart }: PatternSilhouetteProps) {
  const { width = 0, depth = 0 } = bedSize(pattern.card.bed)
  const outline = bedOutline(pattern.card.bed)
  const round = pattern.card.bed?.shape === 'ellipse'
  return (
    <li className={onStart ? 'silhouette' : 'silhouette makers'}>
      <Link to={`/patterns/${pattern.id}`} className="pattern" title={pattern.about} aria-label={`Look at the pattern ${pattern.name}`}>
        <span className="stand">
          <svg width={width * scale + 8} height={depth * scale + 1} style={{ overflow: 'visible' }} aria-hidden>
            {outline && (
              <path
                d={outlinePath(outline, { scale, x0: 1, y0: depth * scale + 1 })}
                fill="var(--sheet)"
                stroke="var(--ink-2)"
                strokeWidth="1.1"
                strokeDasharray={onStart ? undefined : '7 4'}
              />
            )}
          </svg>
        </span>
        <span className="about">
          <span>{pattern.name}</span>
          <span className="mono quiet">{round ? `Ø${plain(width)}` : `${plain(width)} × ${plain(depth)}`}</span>
          {!onStart && <span className="quiet">its maker’s, version {pattern.version}</span>}
          {!isShipped(pattern) && <span className="quiet">{pattern.sourceName}</span>}
        </span>
      </Link>
      {onStart && (
        <button className="link quiet start" aria-label={`Start a card from the pattern ${pattern.name}`} onClick={onStart}>
          start a card
        </button>
      )}
    </li>
  )
}

function Counts({ stops, cautions, notes }: { stops: number; cautions: number; notes: number }) {
  const counts = [
    ['stop', stops],
    ['caution', cautions],
    ['note', notes],
  ] as const
  return counts
    .filter(([, count]) => count > 0)
    .map(([severity, count]) => (
      <span key={severity} className="count">
        <SeverityMark severity={severity} size={12} /> {count}
      </span>
    ))
}
