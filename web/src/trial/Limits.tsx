import { useState } from 'react'
import type { KeepOut } from '../api/client'
import { useSchema } from '../open-document/schema'
import { bedSize, outlineBox } from '../drawing/outline'
import { NumberField } from '../units/NumberField'
import { useTrial } from './TrialContext'
import { under } from '../open-document/pointer'

/** Tighter limits for this trial alone; the card stays as it is. */
export function Limits() {
  const { asked, set, card } = useTrial('asked', 'set', 'card')
  const schema = useSchema('trial')
  const limits = asked.limits
  const keepOuts = limits?.keepOuts ?? []
  const count = [limits?.height, limits?.margin].filter((value) => value !== undefined && value !== null).length + keepOuts.length
  const [open, setOpen] = useState(count > 0)
  const { width = 0, depth = 0 } = bedSize(card.document.envelope?.bed)
  const add = () => {
    const keepOut: KeepOut = {
      name: `tape ${keepOuts.length + 1}`,
      kind: 'reserved',
      outline: { shape: 'rectangle', x: Math.round(width / 2) - 10, y: 0, width: 20, depth: Math.min(20, depth) },
    }
    set('/limits/keepOuts', [...keepOuts, keepOut])
  }
  const number = (pointer: string, label: string, value: number | null | undefined, required = false) => (
    <label className="setting" key={pointer}>
      <span>{label}</span>
      <NumberField value={value} label={label} limits={schema(pointer)} required={required} onChange={(next) => set(pointer, next)} />
    </label>
  )
  return (
    <section aria-label="Limits of this trial">
      <div className="head-line between">
        <h2 className="caps">
          <button className="link plain" aria-expanded={open} onClick={() => setOpen(!open)}>
            <span className="mono">{open ? '−' : '+'}</span> Limits of this trial
          </button>
        </h2>
        <span className="quiet">{count > 0 ? `${count} tighter than the card` : 'as the card says'}</span>
      </div>
      {open && (
        <>
          <div className="settings">
            {number('/limits/height', 'no higher than', limits?.height)}
            {number('/limits/margin', 'margin at least', limits?.margin)}
          </div>
          {keepOuts.map((keepOut, i) => {
            const box = outlineBox(keepOut.outline)
            return (
              <div key={i} className="settings limit">
                <label className="setting">
                  <span>keep out of</span>
                  <input
                    className="plain-field"
                    aria-label="name of this keep-out"
                    value={keepOut.name}
                    maxLength={100}
                    onChange={(event) => set(under('/limits/keepOuts', i, 'name'), event.target.value)}
                  />
                </label>
                <button className="key" onClick={() => set(under('/limits/keepOuts', i), undefined)}>
                  remove
                </button>
                {(['x', 'y', 'width', 'depth'] as const).map((side) =>
                  number(
                    under('/limits/keepOuts', i, 'outline', side),
                    { x: 'left edge', y: 'front edge', width: 'width', depth: 'depth' }[side],
                    box[side],
                    true,
                  ),
                )}
              </div>
            )
          })}
          <button className="link quiet" onClick={add}>
            keep out of a place
          </button>
        </>
      )}
    </section>
  )
}
