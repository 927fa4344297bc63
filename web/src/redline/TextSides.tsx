import { sidesOf } from './sides'

/** Two texts side by side, line by line; what the other has not is marked. */
export function TextSides({ mine, theirs }: { mine: string; theirs: string }) {
  return (
    <div className="text-sides">
      {sidesOf(mine, theirs).map(({ left, right }, i) => (
        <div key={i} className={left === right ? undefined : 'differs'}>
          <code>{left ?? ''}</code>
          <code>{right ?? ''}</code>
        </div>
      ))}
    </div>
  )
}
