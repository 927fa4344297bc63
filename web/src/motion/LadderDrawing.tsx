import type { LadderAnswer } from '../api/client'
import { plain } from '../units/format'

interface LadderDrawingProps {
  ladder: LadderAnswer
  x: number
  y: number
  width: number
  height: number
}

const marks = [
  { share: 0.25, text: '¼ of the nozzle' },
  { share: 0.5, text: '½' },
  { share: 0.75, text: '¾, the most for good layers' },
]

/** The layer heights that fall on whole steps of Z (long rungs) and on half steps (short ones), beside the nozzle. */
export function LadderDrawing({ ladder, x, y, width, height }: LadderDrawingProps) {
  const top = ladder.nozzle ?? 0.4
  const at = (h: number) => y + height - (h / top) * height
  const [left, right] = [x + 70, x + 70 + Math.min(150, width * 0.4)]
  const whole = ladder.rungs.filter((rung) => rung.whole)
  const apart = Math.max(1, Math.ceil(13 / Math.max(1e-6, height * ((whole[1]?.height ?? top) - (whole[0]?.height ?? 0))) / (1 / top)))
  return (
    <g className="ladder" aria-label="ladder of layer heights">
      <text x={x} y={y - 22} className="title">
        LADDER OF LAYER HEIGHTS
      </text>
      <text x={x + 170} y={y - 22} className="quiet-text">
        a full step of Z is {plain(ladder.fullStep, 5)} mm
      </text>
      <path d={`M${left} ${y}V${y + height}M${right} ${y}V${y + height}`} className="rail" />
      {ladder.rungs.map((rung) => (
        <path
          key={rung.halfSteps}
          d={rung.whole ? `M${left} ${at(rung.height)}H${right}` : `M${left + (right - left) / 2 - 14} ${at(rung.height)}h28`}
          className={rung.whole ? 'rung' : 'rung half'}
        />
      ))}
      {whole.map(
        (rung, i) =>
          i % apart === 0 && (
            <g key={rung.halfSteps}>
              <text x={left - 8} y={at(rung.height) + 4} textAnchor="end" className="mono-text">
                {plain(rung.height, 4)}
              </text>
              <text x={right + 8} y={at(rung.height) + 4} className="quiet-text">
                {rung.halfSteps / 2} {rung.halfSteps === 2 ? 'step' : 'steps'}
              </text>
            </g>
          ),
      )}
      {ladder.nozzle != null &&
        marks.map((mark) => (
          <g key={mark.share} className="nozzle-mark">
            <path d={`M${left} ${at(mark.share * top)}H${right}M${right + 56} ${at(mark.share * top)}H${right + 76}`} />
            <text x={right + 82} y={at(mark.share * top) + 4}>
              {plain(mark.share * top, 3)} · {mark.text}
            </text>
          </g>
        ))}
    </g>
  )
}
