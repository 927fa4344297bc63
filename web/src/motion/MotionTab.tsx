import { useState } from 'react'
import { useCard } from '../open-card/CardContext'
import { CardChoice, CardNumber } from '../open-card/fields'
import { Frame } from '../drawing/Frame'
import { Hatches } from '../drawing/Hatches'
import { useSize } from '../drawing/useSize'
import { Findings } from '../findings/Findings'
import { useFindings } from '../findings/useFindings'
import { useRemedy } from '../open-card/useRemedy'
import { plain } from '../units/format'
import { AxisFields } from './AxisFields'
import { HeatDrawing } from './HeatDrawing'
import { HeatFields } from './HeatFields'
import { LadderDrawing } from './LadderDrawing'
import { ReportDialog } from './ReportDialog'
import { useHanded } from '../exchange/dropped'
import { useHeat, useMotion } from './useMotion'
import { pointerOf, stepsOf } from '../open-document/pointer'
import '../drawing/drawing.css'
import './motion.css'

const axes = ['x', 'y', 'z', 'e'] as const
const corners = [
  { value: 'junction-deviation', label: 'junction deviation' },
  { value: 'instant-speed-change', label: 'instant speed change' },
  { value: 'square-corner-speed', label: 'square-corner speed' },
]
const limitsUses = [
  { value: 'trusted', label: 'stand in the firmware' },
  { value: 'stated', label: 'are sent at the start' },
]

/** Drives, limits and heaters, with the ladder of layer heights and the heating drawn. */
export function MotionTab() {
  const { document: card, light, set } = useCard()
  const motion = useMotion(card)
  const heaters = useHeat(card)
  const [open, setOpen] = useState<string | undefined>('z')
  const given = useHanded('settings-report')
  const [report, setReport] = useState(given !== undefined)
  const remedy = useRemedy()
  const { findings, unlooked } = useFindings(card, (finding) => /^\/(motion|heat|head\/nozzles\/\d+\/heater)/.test(finding.pointer ?? ''))
  const delta = card.motion?.layout === 'delta'
  return (
    <main className="card-sheet">
      <MotionSheet />
      <section className="schedule" aria-label="Motion and heat">
        <div className="group-line">
          <h2 className="caps">Motion</h2>
          <button className="link" onClick={() => setReport(true)}>
            take from a settings report
          </button>
        </div>
        <div className="keep-out-fields bare">
          <CardChoice pointer="/motion/layout" label="kind of motion" />
          <CardNumber pointer="/motion/stepRate" label="board sends at most" />
          <label className="small-field">
            corners by
            <select
              className="plain-field"
              aria-label="corners by"
              value={card.motion?.corner?.kind ?? ''}
              onChange={(event) =>
                set(
                  '/motion/corner',
                  event.target.value
                    ? { kind: event.target.value, value: event.target.value === 'junction-deviation' ? 0.02 : 8 }
                    : undefined,
                )
              }
            >
              <option value="">as the flavour does</option>
              {corners.map((corner) => (
                <option key={corner.value} value={corner.value}>
                  {corner.label}
                </option>
              ))}
            </select>
          </label>
          {card.motion?.corner && (
            <CardNumber
              pointer="/motion/corner/value"
              label={card.motion.corner.kind === 'junction-deviation' ? 'deviation, mm' : 'speed, mm/s'}
              required
            />
          )}
          <CardChoice pointer="/motion/limits" label="limits" choices={limitsUses} required />
        </div>
        {axes.map((name) => {
          const answer = motion?.axes.find((axis) => axis.axis === name)
          const axis = card.motion?.axes?.[name]
          return (
            <Part
              key={name}
              name={name === 'e' ? 'filament drive' : name.toUpperCase()}
              about={axis?.stepsPerMm == null ? 'steps per mm not known' : `${plain(axis.stepsPerMm)} steps per mm`}
              open={open === name}
              onOpen={() => setOpen(open === name ? undefined : name)}
            >
              <AxisFields name={name} answer={answer} />
            </Part>
          )
        })}
        {delta && (
          <Part
            name="arms and towers"
            about={motion?.delta ? `reach ${plain(motion.delta.reachRadius, 1)} mm` : 'not known'}
            open={open === 'delta'}
            onOpen={() => setOpen(open === 'delta' ? undefined : 'delta')}
          >
            <CardNumber pointer="/motion/delta/arm" label="arm length" />
            <CardNumber pointer="/motion/delta/radius" label="tower radius, effective" />
            <CardNumber pointer="/motion/delta/homeHeight" label="carriages' home height" />
            <CardNumber pointer="/motion/delta/segmentsPerSecond" label="segments per second" />
            <CardNumber pointer="/motion/delta/endStopLeft" label="end-stop, left front" />
            <CardNumber pointer="/motion/delta/endStopRight" label="end-stop, right front" />
            <CardNumber pointer="/motion/delta/endStopBack" label="end-stop, back" />
            {motion?.delta?.carriagesAtCentre != null && (
              <p className="small-field wide quiet">
                The carriages stand {plain(motion.delta.carriagesAtCentre, 3)} mm above the effector in the middle
                {motion.delta.carriagesAtFront.length === 3 &&
                  `; at the front edge of the reach the back one ${plain(motion.delta.carriagesAtFront[0]!, 1)}, the ` +
                    `two front ones ${plain(motion.delta.carriagesAtFront[1]!, 1)}`}
                .
              </p>
            )}
            {motion?.delta?.ceilingAtCentre != null && (
              <p className="small-field wide quiet">
                The ceiling is a dome: {plain(motion.delta.ceilingAtCentre, 1)} mm in the middle,{' '}
                {plain(motion.delta.ceilingAtEdge ?? 0, 1)} at the edge.
              </p>
            )}
          </Part>
        )}
        <div className="group-line">
          <h2 className="caps">Heat</h2>
        </div>
        <div className="keep-out-fields bare">
          <CardNumber pointer="/heat/room" label="room" proposed={20} />
        </div>
        {(heaters ?? []).map((heater) => (
          <Part
            key={heater.pointer}
            name={heater.name}
            about={`ends at ${plain(heater.reachable, 0)} °C${heater.from === 'typical' ? ', typical' : ''}`}
            open={open === heater.pointer}
            onOpen={() => setOpen(open === heater.pointer ? undefined : heater.pointer)}
          >
            <HeatFields heater={heater} />
          </Part>
        ))}
      </section>
      <aside className="margin-column">
        <Findings
          findings={findings}
          onRemedy={remedy}
          onPoint={(finding) => light(finding?.pointer ?? undefined)}
          onGo={(finding) => setOpen(partOf(finding.pointer ?? ''))}
          unlooked={unlooked}
          fine="Drives and heaters go together."
        />
      </aside>
      {report && <ReportDialog given={given} onClose={() => setReport(false)} />}
    </main>
  )
}

function partOf(pointer: string): string | undefined {
  const steps = stepsOf(pointer)
  const [first, second, , fourth] = steps
  if (first === 'motion' && second === 'axes') return steps[2]
  if (first === 'motion') return second === 'delta' ? second : undefined
  if (first === 'heat' && second) return pointerOf([first, second])
  return second === 'nozzles' && fourth === 'heater' ? pointerOf(steps.slice(0, 4)) : undefined
}

interface PartProps {
  name: string
  about: string
  open: boolean
  onOpen: () => void
  children: React.ReactNode
}

/** One axis, delta or heater: a line, and its fields while it is open. */
function Part({ name, about, open, onOpen, children }: PartProps) {
  return (
    <div className="keep-out-row">
      <button className="keep-out-line" aria-expanded={open} onClick={onOpen}>
        <span className="twist" aria-hidden>
          {open ? '−' : '+'}
        </span>
        <span>{name}</span>
        <span className="quiet">{about}</span>
      </button>
      {open && <div className="keep-out-fields">{children}</div>}
    </div>
  )
}

/** The ladder over the heating of bed and first nozzle. */
function MotionSheet() {
  const { document: card } = useCard()
  const motion = useMotion(card)
  const heaters = useHeat(card) ?? []
  const [ref, { width: w, height: h }] = useSize<HTMLDivElement>()
  const inner = { x: 48, width: w - 96 }
  const half = (h - 150) / 2
  const shown = heaters.slice(0, 2)
  const each = (inner.width - 30 * (shown.length - 1)) / Math.max(1, shown.length)
  return (
    <div className="sheet" ref={ref}>
      {w > 0 && (
        <svg className="drawing" viewBox={`0 0 ${w} ${h}`} aria-label={`Motion and heat of ${card.name || 'this card'}`}>
          <Hatches>
            <Frame width={w} height={h} />
            {motion?.ladder ? (
              <LadderDrawing ladder={motion.ladder} x={inner.x} y={76} width={inner.width} height={half - 10} />
            ) : (
              <text x={w / 2} y={76 + half / 2} textAnchor="middle" className="quiet-text">
                the ladder of layer heights is drawn once the drive of Z is known
              </text>
            )}
            {shown.map((heater, i) => (
              <HeatDrawing
                key={heater.pointer}
                card={card}
                heater={heater}
                x={inner.x + i * (each + 30)}
                y={h - 40 - half + 26}
                width={each}
                height={half - 26}
              />
            ))}
          </Hatches>
        </svg>
      )}
    </div>
  )
}
