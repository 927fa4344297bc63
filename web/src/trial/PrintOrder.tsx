import { Button } from '@mui/material'
import { useEffect } from 'react'
import { inField } from '../shell/inField'
import { plain } from '../units/format'
import { useTrial } from './TrialContext'
import { usePacking } from './usePacking'

/** Whether parts grow together or one after the other; then their order, what stands against it, and the head at its worst moments. */
export function PrintOrder() {
  const { trial, order, moment, lookAtMoment } = useTrial('trial', 'order', 'moment', 'lookAtMoment')
  const parts = trial.document.parts ?? []
  const apart = trial.document.sequence === 'one-at-a-time'
  const moments = order?.moments ?? []
  useEffect(() => {
    if (!apart || moments.length === 0) return
    const onKey = (event: KeyboardEvent) => {
      if (inField(event) || (event.key !== 'n' && event.key !== 'N')) return
      lookAtMoment(((moment ?? -1) + (event.key === 'n' ? 1 : moments.length - 1)) % moments.length)
    }
    window.addEventListener('keydown', onKey)
    return () => window.removeEventListener('keydown', onKey)
  }, [apart, moments.length, moment, lookAtMoment])
  const name = (part: number) => `${parts[part]?.name ?? ''} (${part + 1})`
  const shown = moment === undefined ? undefined : moments[moment]
  return (
    <section aria-label="Print order">
      <div className="head-line between">
        <h2 className="caps">Print order</h2>
        <select
          className="plain-field chooser"
          aria-label="Print order"
          value={trial.document.sequence ?? 'all-at-once'}
          onChange={(event) => trial.set('/sequence', event.target.value)}
        >
          <option value="all-at-once">all parts at once, layer by layer</option>
          <option value="one-at-a-time">one part at a time</option>
        </select>
      </div>
      {apart && order && (
        <>
          {order.order ? (
            <p className="fits">
              {order.order.map((part) => part + 1).join(' → ')}
              <span className="quiet"> · the nozzle passes {plain(order.travelHeight, 1)} mm high over what is finished</span>
            </p>
          ) : (
            <p className="violation-line" role="status">
              No order goes: {order.cycles.map((cycle) => cycle.map((part) => part + 1).join(', ')).join('; ')} stand in each other&apos;s
              way.
            </p>
          )}
          {!order.order &&
            order.conflicts
              .filter(({ first, then }) => order.cycles.some((cycle) => cycle.includes(first) && cycle.includes(then)))
              .slice(0, 6)
              .map((conflict) => (
                <div key={`${conflict.first} ${conflict.then}`} className="violation" role="status">
                  <div>
                    <p>{conflict.message}</p>
                  </div>
                  {conflict.cure && (
                    <Button
                      size="small"
                      onClick={() =>
                        trial.change((before) => ({
                          ...before,
                          parts: before.parts?.map((p, i) =>
                            i === conflict.then
                              ? { ...p, x: settle((p.x ?? 0) + conflict.cure!.x), y: settle((p.y ?? 0) + conflict.cure!.y) }
                              : p,
                          ),
                        }))
                      }
                    >
                      Move {conflict.then + 1} by {plain(Math.hypot(conflict.cure.x, conflict.cure.y), 1)} mm
                    </Button>
                  )}
                </div>
              ))}
          {moments.length > 0 && (
            <div className="stepper" role="group" aria-label="The head at its worst moments">
              <button
                className="key"
                aria-label="previous moment"
                disabled={moment === undefined || moment === 0}
                onClick={() => lookAtMoment((moment ?? 1) - 1)}
              >
                ◂
              </button>
              <span className="mono">
                {moment === undefined ? '–' : moment + 1} / {moments.length}
              </span>
              <button
                className="key"
                aria-label="next moment"
                disabled={moment !== undefined && moment >= moments.length - 1}
                onClick={() => lookAtMoment(moment === undefined ? 0 : moment + 1)}
              >
                ▸
              </button>
              {shown ? (
                <span>
                  printing {name(shown.part)}: the {shown.with}{' '}
                  {shown.gap > 0 ? `passes ${name(shown.standing)} at ${plain(shown.gap, 1)} mm` : `hits ${name(shown.standing)}`}
                  <button className="link quiet" onClick={() => lookAtMoment(undefined)}>
                    hide
                  </button>
                </span>
              ) : (
                <span className="quiet">shows the head where it comes nearest · n</span>
              )}
            </div>
          )}
          {order.order && moments.length === 0 && parts.length > 1 && (
            <p className="quiet">Everything stays below the head: any order goes.</p>
          )}
          <OnAnEmptyBed />
        </>
      )}
    </section>
  )
}

const settle = (value: number) => Math.round(value * 1000) / 1000

/** How many of the chosen part fit one at a time on a bed that is empty. */
function OnAnEmptyBed() {
  const { trial, chosen } = useTrial('trial', 'chosen')
  const part = trial.document.parts?.[chosen ?? 0]
  const packing = usePacking(part)
  if (!part || !packing) return null
  const count = packing.places.length
  const pitch = [packing.pitchX, packing.pitchY].map((p) => (p == null ? undefined : plain(p, 1)))
  return (
    <p className="packing">
      <span>
        {count === 0 ? 'None' : count} of {part.name} {count === 1 ? 'fits' : 'fit'} an empty bed one at a time
        {pitch[0] || pitch[1]
          ? `, ${[pitch[0] && `${pitch[0]} mm apart along X`, pitch[1] && `${pitch[1]} mm along Y`].filter(Boolean).join(', ')}`
          : ''}
        .
      </span>
    </p>
  )
}
