import { Findings } from '../findings/Findings'
import { useFindings } from '../findings/useFindings'
import { useRemedy } from '../open-card/useRemedy'
import type { Finding } from '../api/client'
import { useCard } from '../open-card/CardContext'
import { PatternNews } from '../open-card/PatternNews'
import { letterOf } from '../open-card/letters'
import { Schedule } from './Schedule'
import { SheetDrawing } from '../open-card/SheetDrawing'
import { isWithin } from '../open-document/pointer'

/** Drawing, schedule and findings, side by side. */
export function CardSheet() {
  const { document: card, light, change } = useCard()
  const { findings, unlooked } = useFindings(card)
  const remedy = useRemedy()
  const accept = (finding: Finding, why: string | undefined) =>
    change((before) => {
      const others = (before.accepted ?? []).filter((a) => !(a.rule === finding.rule && a.at === (finding.pointer ?? '')))
      return { ...before, accepted: why ? [...others, { rule: finding.rule, at: finding.pointer ?? '', why }] : others }
    })
  return (
    <main className="card-sheet">
      <SheetDrawing />
      <Schedule findings={findings} />
      <aside className="margin-column">
        <PatternNews />
        <Findings
          findings={findings}
          placeOf={(finding) => (finding.pointer ? (letterOf(finding.pointer) ?? 'row') : undefined)}
          onPoint={(finding) => light(finding?.pointer ?? undefined)}
          onGo={(finding) =>
            document.querySelector<HTMLElement>(`[data-pointer="${rowOf(finding.pointer ?? '')}"] :is(input, select, button)`)?.focus()
          }
          onAccept={accept}
          onRemedy={remedy}
          mayAccept={(finding) => finding.rule !== 'missing-fact'}
          unlooked={unlooked}
          fine="Nothing to say against this card."
        />
      </aside>
    </main>
  )
}

/** The row of the schedule in which a pointer is shown. */
function rowOf(pointer: string): string {
  const rows = [...document.querySelectorAll<HTMLElement>('[data-pointer]')].map((row) => row.dataset.pointer!)
  return rows.filter((row) => isWithin(pointer, row) || isWithin(row, pointer)).sort((a, b) => b.length - a.length)[0] ?? pointer
}
