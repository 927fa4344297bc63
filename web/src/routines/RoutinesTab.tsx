import { lazy, Suspense } from 'react'
import { useCard } from '../card/CardContext'
import { Findings } from '../findings/Findings'
import { useFindings } from '../findings/useFindings'
import './routines.css'

const RoutineEditor = lazy(() => import('./RoutineEditor'))

const moments = [
  { name: 'start', title: 'Start', about: 'before the first layer' },
  { name: 'end', title: 'End', about: 'after the last layer' },
] as const

/** The G-code that the owner writes, at its moments of a print. */
export function RoutinesTab() {
  const { document: card, set } = useCard()
  const findings = useFindings(card).filter((finding) => finding.pointer?.startsWith('/routines'))
  return (
    <main className="routines">
      {moments.map(({ name, title, about }) => (
        <section key={name} className="routine">
          <div className="head-line">
            <h2 className="caps">{title}</h2>
            <span className="quiet">{about}</span>
          </div>
          <Suspense fallback={<p className="nothing">…</p>}>
            <RoutineEditor
              label={`${title} routine`}
              value={card.routines?.[name] ?? ''}
              problems={findings.filter((finding) => finding.pointer === `/routines/${name}` && finding.line)}
              onChange={(text) => set(`/routines/${name}`, text)}
            />
          </Suspense>
        </section>
      ))}
      <aside className="margin-column">
        <Findings
          findings={findings}
          placeOf={(finding) => (finding.line ? `${finding.pointer?.split('/')[2] ?? ''} ${finding.line}` : undefined)}
          fine="Both can be written out."
        />
      </aside>
    </main>
  )
}
