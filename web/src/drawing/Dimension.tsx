import type { XY } from './view'

interface DimensionProps {
  /** The measured ends, px. Both share x (upright) or y (level). */
  from: XY
  to: XY
  /** Where the dimension line runs: its x if upright, its y if level, px. */
  at: number
  letter: string
  /** What stands beside the letter; `?` where the fact is missing. */
  value: string
  lit?: boolean
  onPoint?: (on: boolean) => void
  /** Asks for the field in which the value can be typed over. */
  onEdit?: () => void
}

const glyph = 7.8

/** A dimension line after ISO 129-1: extension lines, arrow heads, letter and value on the line. All in px of the drawing. */
export function Dimension({ from, to, at, letter, value, lit, onPoint, onEdit }: DimensionProps) {
  const upright = from[0] === to[0]
  const [a, b]: [XY, XY] = upright
    ? [
        [at, from[1]],
        [at, to[1]],
      ]
    : [
        [from[0], at],
        [to[0], at],
      ]
  const over = 4 * Math.sign(at - (upright ? from[0] : from[1]))
  const label = `${letter} ${value}`
  const width = label.length * glyph + 8
  const middle: XY = [(a[0] + b[0]) / 2, (a[1] + b[1]) / 2]
  const span = upright ? Math.abs(b[1] - a[1]) : Math.abs(b[0] - a[0])
  const room = upright ? 22 : width
  const inside = span > room + 16
  const spot: XY = inside || upright ? middle : [Math.max(a[0], b[0]) + 10 + width / 2, at]
  return (
    <g
      className={lit ? 'dimension lit' : 'dimension'}
      onPointerEnter={() => onPoint?.(true)}
      onPointerLeave={() => onPoint?.(false)}
      onClick={onEdit}
      data-letter={letter}
    >
      <path
        d={
          upright
            ? `M${from[0]} ${from[1]}H${at + over}M${to[0]} ${to[1]}H${at + over}`
            : `M${from[0]} ${from[1]}V${at + over}M${to[0]} ${to[1]}V${at + over}`
        }
        className="extension"
      />
      <path d={`M${a[0]} ${a[1]}L${b[0]} ${b[1]}`} className="line" />
      {span > 14 && (
        <>
          <path d={head(a, b)} className="head" />
          <path d={head(b, a)} className="head" />
        </>
      )}
      <rect x={spot[0] - width / 2} y={spot[1] - 10} width={width} height={20} className="plate" />
      <text x={spot[0]} y={spot[1] + 4.5} textAnchor="middle">
        <tspan className="letter">{letter}</tspan> {value}
      </text>
    </g>
  )
}

/** An arrow head at `tip`, pointing away from `tail`. */
function head(tip: XY, tail: XY): string {
  const length = Math.hypot(tail[0] - tip[0], tail[1] - tip[1]) || 1
  const [x, y] = [(tail[0] - tip[0]) / length, (tail[1] - tip[1]) / length]
  const [bx, by] = [tip[0] + 8 * x, tip[1] + 8 * y]
  return `M${tip[0]} ${tip[1]}L${bx - 2.2 * y} ${by + 2.2 * x}L${bx + 2.2 * y} ${by - 2.2 * x}Z`
}
