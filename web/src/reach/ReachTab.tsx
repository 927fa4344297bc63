import { lazy, Suspense, useState } from 'react'
import type { Card, Finding, ReachAnswer } from '../api/client'
import { useCard } from '../open-card/CardContext'
import { CardChoice, CardNumber } from '../open-card/fields'
import { useWords, type Word } from '../open-document/description'
import { useRegions } from '../open-card/useRegions'
import { Frame } from '../drawing/Frame'
import { Hatches } from '../drawing/Hatches'
import { bedSize } from '../drawing/outline'
import { Plan } from '../drawing/Plan'
import { useSize } from '../drawing/useSize'
import { fitted, toX, toY } from '../drawing/view'
import { Findings } from '../findings/Findings'
import { useFindings } from '../findings/useFindings'
import { plain } from '../units/format'
import { OutOfReach } from '../open-card/OutOfReach'
import { useReach } from '../open-card/useReach'
import { under } from '../open-document/pointer'
import '../drawing/drawing.css'
import './reach.css'

const RoutineEditor = lazy(() => import('../routine-editor/RoutineEditor'))

/** A region that can be looked at. */
interface Entry {
  key: string
  name: string
  area: number
  polygons: number[][][][]
  about?: string
  mode?: number
}

/** Where nozzles reach, alone and together, and where each mode of two carriages may print. */
export function ReachTab() {
  const { document: card } = useCard()
  const words = useWords('card')
  const reach = useReach(card)
  const { findings, unlooked } = useFindings(card, (finding) =>
    /^\/(modes|head\/(carriages|leastDistance|offsets|probe))/.test(finding.pointer ?? ''),
  )
  const groups = entriesOf(card, reach, words)
  const all = groups.flatMap((group) => group.entries)
  const [looked, look] = useState<string>()
  const shown = all.find((entry) => entry.key === looked) ?? all[0]
  const mode = shown?.mode === undefined ? undefined : card.modes?.[shown.mode]
  return (
    <main className="card-sheet reach-tab">
      <ReachPlan card={card} shown={shown} />
      <section className="schedule" aria-label="Reach">
        {groups.map((group) => (
          <section key={group.title} aria-label={group.title}>
            <div className="group-line">
              <h2 className="caps">{group.title}</h2>
            </div>
            {group.entries.map((entry) => (
              <div key={entry.key} className={entry === shown ? 'keep-out-row lit' : 'keep-out-row'}>
                <button className="reach-line" aria-pressed={entry === shown} onClick={() => look(entry.key)}>
                  <span>{entry.name}</span>
                  <span className="quiet">{entry.about}</span>
                  <span className="mono">{plain(entry.area / 100, 1)} cm²</span>
                </button>
              </div>
            ))}
          </section>
        ))}
        {mode && shown?.mode !== undefined && (
          <ModeFields
            key={shown.mode}
            index={shown.mode}
            findings={findings.filter((f) => shown.mode !== undefined && f.pointer === under('/modes', shown.mode, 'start') && f.line)}
          />
        )}
        {(card.head?.nozzles?.length ?? 0) < 2 && (
          <p className="nothing">A second nozzle, or a second carriage, is added under Head; its reach then stands here.</p>
        )}
      </section>
      <aside className="margin-column">
        <Findings findings={findings} unlooked={unlooked} fine="Reach and modes go together." />
      </aside>
    </main>
  )
}

function entriesOf(card: Card, reach: ReachAnswer | undefined, words: Word): { title: string; entries: Entry[] }[] {
  if (!reach) return []
  const groups = [
    {
      title: 'Nozzles',
      entries: reach.nozzles.map((n): Entry => ({ key: n.nozzle, name: n.nozzle || 'the nozzle', area: n.area, polygons: n.polygons })),
    },
    {
      title: 'Several nozzles',
      entries: reach.sets.map((s): Entry => ({
        key: s.nozzles.join('+'),
        name: s.nozzles.join(' and '),
        area: s.area,
        polygons: s.polygons,
      })),
    },
    {
      title: 'Probe',
      entries: reach.probe ? [{ key: 'probe', name: wordlessProbe(card), area: reach.probe.area, polygons: reach.probe.polygons }] : [],
    },
    {
      title: 'Modes',
      entries: reach.modes.map((m): Entry => ({
        key: `${m.mode} ${m.nozzle}`,
        name: `${words('/modes/0/kind', m.mode)}${m.mode === 'two-material' ? `, ${m.nozzle}` : ''}`,
        about: m.mode === 'copy' ? `up to ${plain(m.widest, 1)} wide` : undefined,
        area: m.area,
        polygons: m.polygons,
        mode: card.modes?.findIndex((mode) => mode.kind === m.mode),
      })),
    },
  ]
  return groups.filter((group) => group.entries.length > 0)
}

const wordlessProbe = (card: Card) => {
  const { columns, rows } = card.head?.probe ?? {}
  return columns && rows ? `grid of ${columns} × ${rows}` : 'where it can be brought'
}

function ReachPlan({ card, shown }: { card: Card; shown: Entry | undefined }) {
  const [ref, { width: w, height: h }] = useSize<HTMLDivElement>()
  const { regions, usable } = useRegions(card)
  const { width, depth } = bedSize(card.envelope?.bed)
  if (!width || !depth) return <div className="sheet" ref={ref} />
  const view = fitted({ x: 0, y: 0, width, depth }, { x: 70, y: 70, width: w - 140, height: h - 150 })
  const mode = shown?.mode === undefined ? undefined : card.modes?.[shown.mode]
  return (
    <div className="sheet" ref={ref}>
      {w > 0 && (
        <svg className="drawing" viewBox={`0 0 ${w} ${h}`} aria-label={`Reach on the bed of ${card.name || 'this card'}`}>
          <Hatches>
            <Frame width={w} height={h} />
            <text x={w / 2} y={52} textAnchor="middle" className="title">
              {shown ? `WHERE ${shown.name.toUpperCase()} ${mode ? 'MAY PRINT' : 'REACHES'}` : 'REACH'}
            </text>
            <Plan card={card} view={view} regions={regions} usable={usable}>
              {shown && <OutOfReach card={card} view={view} polygons={shown.polygons} />}
            </Plan>
            {mode?.kind === 'mirror' && (
              <Axis x={toX(view, mode.mirrorAt ?? width / 2)} from={toY(view, depth) - 14} to={toY(view, 0) + 14} text="mirror" />
            )}
            {card.head?.carriages?.length === 2 &&
              mode &&
              card.head.carriages.map((carriage, i) => (
                <Axis
                  key={i}
                  x={Math.min(w - 58, Math.max(58, toX(view, carriage.park + (card.envelope?.origin?.x ?? 0))))}
                  from={toY(view, depth) - 14}
                  to={toY(view, 0) + 14}
                  text={`${carriage.nozzle} parks`}
                />
              ))}
          </Hatches>
        </svg>
      )}
    </div>
  )
}

function Axis({ x, from, to, text }: { x: number; from: number; to: number; text: string }) {
  return (
    <g className="reach-axis">
      <path d={`M${x} ${from}V${to}`} />
      <text x={x} y={to + 14} textAnchor="middle">
        {text}
      </text>
    </g>
  )
}

function ModeFields({ index, findings }: { index: number; findings: Finding[] }) {
  const { document: card, set } = useCard()
  const words = useWords('card')
  const mode = card.modes![index]!
  const at = under('/modes', index)
  const name = words('/modes/0/kind', mode.kind)!
  return (
    <section aria-label={`Settings of ${name}`} className="mode-fields">
      <div className="group-line">
        <h2 className="caps">Settings of {name}</h2>
        <button className="link quiet" onClick={() => set(at, undefined)}>
          take this mode off
        </button>
      </div>
      <div className="keep-out-fields bare">
        {mode.kind === 'copy' && (
          <CardNumber pointer={under(at, 'gap')} label="gap between copies" of={name} proposed={card.head?.clearance ?? 1} />
        )}
        {mode.kind === 'mirror' && (
          <CardNumber
            pointer={under(at, 'mirrorAt')}
            label="mirror stands at X (bed)"
            of={name}
            proposed={(bedSize(card.envelope?.bed).width ?? 0) / 2}
          />
        )}
        <CardNumber pointer={under(at, 'maxSpeed')} label="no faster than" of={name} />
        <CardChoice pointer={under(at, 'kind')} label="mode" of={name} required />
      </div>
      <div className="group-line">
        <h2 className="caps">Its start routine</h2>
        {mode.start == null ? (
          <button className="link" onClick={() => set(under(at, 'start'), card.routines?.start ?? '')}>
            write one of its own
          </button>
        ) : (
          <button className="link quiet" onClick={() => set(under(at, 'start'), undefined)}>
            use the card&apos;s again
          </button>
        )}
      </div>
      {mode.start == null ? (
        <p className="nothing">
          The card&apos;s own start routine runs. It may ask <code>mode.name</code>, and use <code>mode.offset</code>,{' '}
          <code>mode.warmer</code> and <code>mode.fan</code>, which come from the trial.
        </p>
      ) : (
        <div className="mode-routine">
          <Suspense fallback={<p className="nothing">…</p>}>
            <RoutineEditor
              label={`Start routine of ${name}`}
              value={mode.start}
              problems={findings}
              onChange={(text) => set(under(at, 'start'), text)}
            />
          </Suspense>
        </div>
      )}
    </section>
  )
}
