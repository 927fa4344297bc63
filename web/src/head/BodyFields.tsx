import { useState } from 'react'
import type { Body, Outline } from '../api/client'
import { useCard } from '../open-card/CardContext'
import { CardChoice, CardNumber, CardText } from '../open-card/fields'
import { OutlineDialog } from '../open-card/OutlineDialog'
import { reshapedOutline } from '../drawing/outline'
import { under } from '../open-document/pointer'

const shapes = [
  { value: 'rectangle', label: 'rectangle' },
  { value: 'circle', label: 'circle' },
  { value: 'polygon', label: 'polygon' },
]

/** The figures of one body. */
export function BodyFields({ pointer, body }: { pointer: string; body: Body }) {
  const { document: card, set } = useCard()
  const [corners, setCorners] = useState(false)
  const at = under(pointer, 'outline')
  const name = body.name
  const carriages = card.head?.carriages ?? []
  return (
    <>
      <CardText pointer={under(pointer, 'name')} label="name" of={name} />
      <CardNumber pointer={under(pointer, 'underside')} label="N  above the tip" of={name} required />
      <label className="small-field">
        outline
        <select
          className="plain-field"
          aria-label={`${name}, outline`}
          value={body.outline.shape}
          onChange={(event) => set(at, reshapedOutline(body.outline, event.target.value as Outline['shape']))}
        >
          {shapes.map((shape) => (
            <option key={shape.value} value={shape.value}>
              {shape.label}
            </option>
          ))}
        </select>
      </label>
      {body.outline.shape === 'circle' && (
        <>
          <CardNumber pointer={under(at, 'x')} label="M  centre X" of={name} required />
          <CardNumber pointer={under(at, 'y')} label="Q  centre Y" of={name} required />
          <CardNumber pointer={under(at, 'radius')} label="M  radius" of={name} required />
        </>
      )}
      {(body.outline.shape === 'rectangle' || body.outline.shape === 'ellipse') && (
        <>
          <CardNumber pointer={under(at, 'x')} label="M  left edge" of={name} required />
          <CardNumber pointer={under(at, 'width')} label="M  width" of={name} required />
          <CardNumber pointer={under(at, 'y')} label="Q  front edge" of={name} required />
          <CardNumber pointer={under(at, 'depth')} label="Q  depth" of={name} required />
        </>
      )}
      {body.outline.shape === 'polygon' && (
        <span className="small-field wide">
          {body.outline.points.length} corners
          <button className="link" onClick={() => setCorners(true)}>
            type, paste or take them from a file
          </button>
        </span>
      )}
      {carriages.length === 2 && (
        <CardChoice
          pointer={under(pointer, 'on')}
          label="hangs beside"
          of={name}
          choices={carriages.map((c) => ({ value: c.nozzle, label: `nozzle ${c.nozzle} only` }))}
        />
      )}
      {corners && body.outline.shape === 'polygon' && (
        <OutlineDialog
          title={name}
          points={body.outline.points}
          onClose={(points) => {
            setCorners(false)
            if (points) set(under(at, 'points'), points)
          }}
        />
      )}
    </>
  )
}
