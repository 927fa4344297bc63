import { useVirtualizer } from '@tanstack/react-virtual'
import { useEffect, useRef, type KeyboardEvent } from 'react'
import type { Severity, StoredRun } from '../api/client'
import { SeverityMark } from '../findings/SeverityMark'
import { clockTime } from '../units/format'
import { useLines } from '../api/useLines'

const rowHeight = 23

interface LinesProps {
  id: string
  run: StoredRun
  cursor: number
  onGo: (line: number) => void
}

/** The program, line by line, with what each does and when; only what is in sight is asked for. */
export function Lines({ id, run, cursor, onGo }: LinesProps) {
  const box = useRef<HTMLDivElement>(null)
  const count = run.result.lines
  const rows = useVirtualizer({ count, getScrollElement: () => box.current, estimateSize: () => rowHeight, overscan: 12 })
  const items = rows.getVirtualItems()
  const lines = useLines(id, run, (items[0]?.index ?? 0) + 1, (items.at(-1)?.index ?? 0) + 1)
  const marks = new Map<number, Severity>(
    [...run.result.findings].reverse().flatMap((finding) => (finding.line ? [[finding.line, finding.severity] as const] : [])),
  )
  useEffect(() => rows.scrollToIndex(cursor - 1, { align: 'auto' }), [rows, cursor])

  const key = (event: KeyboardEvent) => {
    const visible = Math.max(1, Math.floor((box.current?.clientHeight ?? 0) / rowHeight) - 1)
    const step = { ArrowDown: 1, ArrowUp: -1, PageDown: visible, PageUp: -visible, Home: -count, End: count }[event.key]
    if (step === undefined) return
    event.preventDefault()
    onGo(Math.min(count, Math.max(1, cursor + step)))
  }

  return (
    <section className="lines" aria-label="Program">
      <div className="lines-head">
        <h2 className="caps">{run.result.name}</h2>
        <span className="caps">What it does</span>
        <span className="quiet">at</span>
      </div>
      <div
        className="lines-box"
        ref={box}
        tabIndex={0}
        role="listbox"
        aria-label="Lines of the program"
        aria-activedescendant={`line-${cursor}`}
        onKeyDown={key}
      >
        <div style={{ height: rows.getTotalSize(), position: 'relative' }}>
          {items.map(({ index, start }) => {
            const number = index + 1
            const line = lines.get(number)
            const mark = marks.get(number)
            return (
              // the list box has the keys
              // eslint-disable-next-line jsx-a11y/click-events-have-key-events, jsx-a11y/interactive-supports-focus
              <div
                key={index}
                id={`line-${number}`}
                role="option"
                aria-selected={cursor === number}
                className={['line-row', cursor === number && 'lit', line?.text.startsWith(';') && 'remark', mark].filter(Boolean).join(' ')}
                style={{ top: start, height: rowHeight }}
                onClick={() => onGo(number)}
              >
                <span className="number">{number}</span>
                <span className="text">{line?.text}</span>
                {line?.effect && (
                  <>
                    <span className="mark">{mark && <SeverityMark severity={mark} />}</span>
                    <span className="effect">{line.effect}</span>
                    <span className="at">{clockTime(line.start)}</span>
                  </>
                )}
              </div>
            )
          })}
        </div>
      </div>
    </section>
  )
}
