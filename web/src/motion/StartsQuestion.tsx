import type { MotionAnswer } from '../api/client'
import { plain } from '../units/format'

type Reading = MotionAnswer['axes'][number]['readings'][number]

/** How many starts a screw has, with the two usual answers drawn: one turn of the thread each. */
export function StartsQuestion({ readings, onTake }: { readings: Reading[]; onTake: (reading: Reading) => void }) {
  return (
    <div className="starts-question small-field wide" role="group" aria-label="How many starts has the thread?">
      <span>How many starts has the thread? Look at the end of the screw: count the grooves that begin there.</span>
      <div>
        {readings.map((reading) => (
          <button key={reading.starts} onClick={() => onTake(reading)}>
            <Screw reading={reading} />
            <span>{reading.words}</span>
            <span className="quiet">
              {plain(reading.lead)} mm a turn
              {reading.stepsPerMm != null && `, ${plain(reading.stepsPerMm, 2)} steps per mm`}
            </span>
          </button>
        ))}
      </div>
    </div>
  )
}

const [left, right, high, scale] = [26, 74, 96, 5]

/** A piece of the screw from the side, and its end: each start has its own groove, and one of them is drawn strong. */
function Screw({ reading }: { reading: Reading }) {
  const { pitch, lead, starts } = reading
  const count = Math.ceil((high + lead * scale) / (pitch * scale))
  const threads = Array.from({ length: count + starts }, (_, i) => ({ y: high + 8 - i * pitch * scale, first: i % starts === 0 }))
  return (
    <svg viewBox="0 0 150 112" width="150" height="112" aria-hidden>
      <clipPath id={`screw-${starts}`}>
        <rect x={left} y={8} width={right - left} height={high} />
      </clipPath>
      <path d={`M${left} 8V${high + 8}M${right} 8V${high + 8}`} className="rail" />
      <g clipPath={`url(#screw-${starts})`}>
        {threads.map(({ y, first }, i) => (
          <path key={i} d={`M${left} ${y}L${right} ${y - (lead * scale) / 2}`} className={first ? 'thread one' : 'thread'} />
        ))}
      </g>
      <circle cx="118" cy="56" r="22" className="end" />
      {Array.from({ length: starts }, (_, i) => {
        const turn = (2 * Math.PI * i) / starts - Math.PI / 2
        return (
          <circle
            key={i}
            cx={118 + 22 * Math.cos(turn)}
            cy={56 + 22 * Math.sin(turn)}
            r="5"
            className={i === 0 ? 'groove one' : 'groove'}
          />
        )
      })}
    </svg>
  )
}
