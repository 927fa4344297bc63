import { Button } from '@mui/material'
import { useState } from 'react'
import type { Finding, KeepOut, Outline, Position } from '../api/client'
import { bedSize, outlineBox, reshapedOutline } from '../drawing/outline'
import { SeverityMark } from '../findings/SeverityMark'
import { plain } from '../units/format'
import { NumberField } from '../units/NumberField'
import { useCard } from '../open-card/CardContext'
import { OutlineDialog } from '../open-card/OutlineDialog'
import { SourceMark } from '../open-card/SourceMark'
import { isWithin, under } from '../open-document/pointer'

const kinds: { value: KeepOut['kind']; label: string; about: string }[] = [
  { value: 'obstacle', label: 'obstacle', about: 'stands up: a clip, a post' },
  { value: 'bad-surface', label: 'bad surface', about: 'a dent: first layer only' },
  { value: 'reserved', label: 'reserved', about: 'a wiper, a purge strip' },
]

/** The keep-outs, each a row that opens to its figures. */
export function KeepOutRows({ findings }: { findings: Finding[] }) {
  const { document: card, change, lit, light } = useCard()
  const [open, setOpen] = useState<number>()
  const keepOuts = card.envelope?.keepOuts ?? []
  const { width = 0, depth = 0 } = bedSize(card.envelope?.bed)
  const add = () => {
    change((before) => ({
      ...before,
      envelope: {
        ...before.envelope,
        keepOuts: [
          ...keepOuts,
          {
            name: `obstacle ${keepOuts.length + 1}`,
            kind: 'obstacle',
            outline: {
              shape: 'rectangle',
              x: 0,
              y: Math.max(0, Math.round(depth / 2) - 10),
              width: Math.min(12, width),
              depth: Math.min(20, depth),
            },
          },
        ],
      },
    }))
    setOpen(keepOuts.length)
  }
  return (
    <>
      <div className="fact" data-pointer="/envelope/keepOuts">
        <span className="letter">F</span>
        <span className="label">keep-outs</span>
        <span className="keep-out-count">
          <span className="mono">{keepOuts.length || 'none'}</span>
          <button
            className="link"
            disabled={!width || !depth}
            onClick={add}
            title={!width || !depth ? 'first the size of the bed' : undefined}
          >
            add one
          </button>
        </span>
        <SourceMark pointer="/envelope/keepOuts" />
        <span className="mark" />
      </div>
      {keepOuts.map((keepOut, i) => {
        const pointer = under('/envelope/keepOuts', i)
        const own = findings.find((finding) => !finding.accepted && isWithin(finding.pointer, pointer))
        return (
          <div
            key={i}
            data-pointer={pointer}
            onPointerEnter={() => light(pointer)}
            onPointerLeave={() => light(undefined)}
            className={isWithin(lit, pointer) ? 'keep-out-row lit' : 'keep-out-row'}
          >
            <button className="keep-out-line" aria-expanded={open === i} onClick={() => setOpen(open === i ? undefined : i)}>
              <span className="twist" aria-hidden>
                {open === i ? '−' : '+'}
              </span>
              <span>{keepOut.name || 'without a name'}</span>
              <span className="quiet">
                {kinds.find((kind) => kind.value === keepOut.kind)?.label}
                {keepOut.kind === 'obstacle' && (keepOut.top ? `, ${keepOut.top} high` : ', height ?')}
              </span>
              {own && <SeverityMark severity={own.severity} />}
            </button>
            {open === i && <KeepOutFields keepOut={keepOut} pointer={pointer} onRemoved={() => setOpen(undefined)} />}
          </div>
        )
      })}
    </>
  )
}

function KeepOutFields({ keepOut, pointer, onRemoved }: { keepOut: KeepOut; pointer: string; onRemoved: () => void }) {
  const { document: card, set, limits, errors } = useCard()
  const [corners, setCorners] = useState(false)
  const number = (field: string, label: string, value: number | null | undefined, required = true) => (
    <label className="small-field">
      {label}
      <NumberField
        value={value}
        label={`${keepOut.name} ${label}`}
        limits={limits(under(pointer, field))}
        refused={errors[under(pointer, field)]}
        required={required}
        onChange={(next) => set(under(pointer, field), next)}
      />
    </label>
  )
  return (
    <div className="keep-out-fields">
      <label className="small-field wide">
        name
        <input
          className="plain-field"
          value={keepOut.name}
          maxLength={100}
          onChange={(event) => set(under(pointer, 'name'), event.target.value)}
        />
      </label>
      <label className="small-field">
        kind
        <select className="plain-field" value={keepOut.kind} onChange={(event) => set(under(pointer, 'kind'), event.target.value)}>
          {kinds.map((kind) => (
            <option key={kind.value} value={kind.value} title={kind.about}>
              {kind.label}
            </option>
          ))}
        </select>
      </label>
      <label className="small-field">
        outline
        <select
          className="plain-field"
          value={keepOut.outline.shape}
          onChange={(event) => set(under(pointer, 'outline'), reshapedOutline(keepOut.outline, event.target.value as Outline['shape']))}
        >
          <option value="rectangle">rectangle</option>
          <option value="circle">circle</option>
          {keepOut.outline.shape === 'ellipse' && <option value="ellipse">ellipse</option>}
          <option value="polygon">polygon</option>
        </select>
      </label>
      {keepOut.kind === 'obstacle' && number('top', 'top above plate', keepOut.top, false)}
      {number('tolerance', 'may be off by', keepOut.tolerance, false)}
      {keepOut.outline.shape === 'circle' && (
        <>
          {number('outline/x', 'centre X', keepOut.outline.x)}
          {number('outline/y', 'centre Y', keepOut.outline.y)}
          {number('outline/radius', 'radius', keepOut.outline.radius)}
        </>
      )}
      {keepOut.outline.shape === 'polygon' && (
        <span className="small-field wide">
          {keepOut.outline.points.length} corners
          <button className="link" onClick={() => setCorners(true)}>
            type, paste or take them from a file
          </button>
        </span>
      )}
      {(keepOut.outline.shape === 'rectangle' || keepOut.outline.shape === 'ellipse') && (
        <>
          {number('outline/x', 'left edge', outlineBox(keepOut.outline).x)}
          {number('outline/y', 'front edge', outlineBox(keepOut.outline).y)}
          {number('outline/width', 'width', outlineBox(keepOut.outline).width)}
          {number('outline/depth', 'depth', outlineBox(keepOut.outline).depth)}
        </>
      )}
      <span className="small-field wide">{inMachine(keepOut.outline, card.envelope?.origin)}</span>
      {corners && keepOut.outline.shape === 'polygon' && (
        <OutlineDialog
          title={keepOut.name}
          points={keepOut.outline.points}
          onClose={(points) => {
            setCorners(false)
            if (points) set(under(pointer, 'outline', 'points'), points)
          }}
        />
      )}
      <Button
        onClick={() => {
          onRemoved()
          set(pointer, undefined)
        }}
      >
        Remove
      </Button>
    </div>
  )
}

/** Where an outline lies as the firmware counts. */
function inMachine(outline: Outline, origin: Position | null | undefined): string {
  if (!origin) return 'in machine coordinates: the origin is not known yet'
  const { x, y, width, depth } = outlineBox(outline)
  return `machine X ${plain(x - origin.x)} … ${plain(x + width - origin.x)}, Y ${plain(y - origin.y)} … ${plain(y + depth - origin.y)}`
}
