import { useState } from 'react'
import { useCard } from '../open-card/CardContext'
import { letterOf } from '../open-card/letters'
import { Findings } from '../findings/Findings'
import { useFindings } from '../findings/useFindings'
import { useRemedy } from '../open-card/useRemedy'
import { guideFor } from './guide'
import { HeadDrawing } from './HeadDrawing'
import { HeadSchedule } from './HeadSchedule'
import { isWithin } from '../open-document/pointer'
import './head.css'

/** The head: its section drawing, its facts, and how to take each of them. */
export function HeadTab() {
  const { document: card, lit, light } = useCard()
  const [open, setOpen] = useState<string | undefined>((card.head?.bodies?.length ?? 0) > 0 ? '/head/bodies/0' : '/head/nozzles/0')
  const { findings, unlooked } = useFindings(card, (finding) => isWithin(finding.pointer, '/head'))
  const remedy = useRemedy()
  const guide = guideFor(lit ?? open)
  return (
    <main className="card-sheet">
      <HeadDrawing open={open} onOpen={setOpen} />
      <HeadSchedule open={open} onOpen={setOpen} />
      <aside className="margin-column">
        <section className="guide" aria-label="How to measure">
          <h2 className="caps">How to measure</h2>
          <h3>{guide.title}</h3>
          <ol>
            {guide.steps.map((step) => (
              <li key={step}>{step}</li>
            ))}
          </ol>
        </section>
        <Findings
          findings={findings}
          placeOf={(finding) => (finding.pointer ? letterOf(finding.pointer) : undefined)}
          onPoint={(finding) => light(finding?.pointer ?? undefined)}
          onGo={(finding) => setOpen(/^\/head\/\w+\/\d+/.exec(finding.pointer ?? '')?.[0])}
          onRemedy={remedy}
          unlooked={unlooked}
          fine="Nothing to say against this head."
        />
      </aside>
    </main>
  )
}
