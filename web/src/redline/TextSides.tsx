import { presentableDiff } from '@codemirror/merge'
import type { ReactNode } from 'react'
import { sidesOf } from './sides'

/** Two texts side by side, line by line; what the other has not is marked, within lines word by word. */
export default function TextSides({ mine, theirs }: { mine: string; theirs: string }) {
  return (
    <div className="text-sides">
      {sidesOf(mine, theirs).map(({ left, right }, i) => {
        const [a, b] = left !== undefined && right !== undefined && left !== right ? marked(left, right) : [left ?? '', right ?? '']
        return (
          <div key={i} className={left === right ? undefined : 'differs'}>
            <code>{a}</code>
            <code>{b}</code>
          </div>
        )
      })}
    </div>
  )
}

/** Two lines with what differs in them marked. */
function marked(left: string, right: string): [ReactNode, ReactNode] {
  const changes = presentableDiff(left, right)
  const side = (text: string, pieces: [number, number][]) => {
    const ends = [...pieces, [text.length, text.length] as const]
    return ends.map(([from, to], i) => (
      <span key={i}>
        {text.slice(i === 0 ? 0 : ends[i - 1]![1], from)}
        {to > from && <mark>{text.slice(from, to)}</mark>}
      </span>
    ))
  }
  return [
    side(
      left,
      changes.map(({ fromA, toA }) => [fromA, toA]),
    ),
    side(
      right,
      changes.map(({ fromB, toB }) => [fromB, toB]),
    ),
  ]
}
