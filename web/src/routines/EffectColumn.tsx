import { useLayoutEffect, useMemo, useRef, useState } from 'react'
import type { PreviewLine } from '../api/client'
import { clockTime } from '../units/format'
import { lineHeight, linePadding } from './lineHeight'

interface EffectColumnProps {
  lines: PreviewLine[]
  /** Number of lines of the routine's text. */
  count: number
  show: 'effect' | 'text'
  cursor: number
  severities: Map<number, string>
  scrolledTo: number
  onScroll: (top: number) => void
  onCursor: (line: number) => void
}

/** What every line of a routine does, beside it; scrolled with it. Only what is in sight is drawn. */
export function EffectColumn({ lines, count, show, cursor, severities, scrolledTo, onScroll, onCursor }: EffectColumnProps) {
  const box = useRef<HTMLDivElement>(null)
  const [height, setHeight] = useState(600)
  const byLine = useMemo(() => grouped(lines), [lines])
  useLayoutEffect(() => {
    const element = box.current
    if (!element) return
    if (Math.abs(element.scrollTop - scrolledTo) > 1) element.scrollTop = scrolledTo
    setHeight(element.clientHeight)
  }, [scrolledTo])
  const first = Math.max(0, Math.floor(scrolledTo / lineHeight) - 10)
  const last = Math.min(count, first + Math.ceil(height / lineHeight) + 30)
  return (
    <div
      className="effects"
      ref={box}
      // eslint-disable-next-line jsx-a11y/no-noninteractive-tabindex -- what scrolls must be reached by the keyboard
      tabIndex={0}
      aria-label="What every line does"
      role="list"
      onScroll={(event) => onScroll(event.currentTarget.scrollTop)}
    >
      <div style={{ height: count * lineHeight + 2 * linePadding, position: 'relative' }}>
        {Array.from({ length: Math.max(0, last - first) }, (_, i) => first + i + 1).map((number) => {
          const of = byLine.get(number) ?? []
          const main = of.find((line) => line.seconds > 0) ?? of.find((line) => line.effect) ?? of[0]
          const seconds = of.reduce((sum, line) => sum + line.seconds, 0)
          return (
            <div
              key={number}
              role="listitem"
              className={`effect-row${cursor === number ? ' lit' : ''} ${severities.get(number) ?? ''}`}
              style={{ top: (number - 1) * lineHeight + linePadding, height: lineHeight }}
              onPointerDown={() => onCursor(number)}
              title={main && (show === 'effect' ? main.effect : of.map((line) => line.text).join('\n'))}
            >
              <span className="at">{main && (seconds > 0.05 || main.effect) ? clockTime(main.start) : ''}</span>
              <span className={show === 'text' ? 'written' : 'effect'}>
                {main && (show === 'effect' ? main.effect : main.text)}
                {of.length > 1 ? ` (× ${of.length})` : ''}
              </span>
            </div>
          )
        })}
      </div>
    </div>
  )
}

function grouped(lines: PreviewLine[]): Map<number, PreviewLine[]> {
  const groups = new Map<number, PreviewLine[]>()
  for (const line of lines) {
    const group = groups.get(line.from)
    if (group) group.push(line)
    else groups.set(line.from, [line])
  }
  return groups
}
