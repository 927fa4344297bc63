import { useState } from 'react'
import { sentenceOf, type Zone } from '../api/client'
import { useDepartures } from '../open-document/description'
import { useSchema } from '../open-document/schema'
import { bedSize } from '../drawing/outline'
import { plain } from '../units/format'
import { NumberField } from '../units/NumberField'
import { Departures } from './Departures'
import { putMesh } from '../api/putMesh'
import { useTrial } from './TrialContext'
import { under } from '../open-document/pointer'

const uses = {
  settings: 'settings differ',
  support: 'support wanted',
  'no-support': 'no support',
  cut: 'cut away',
  seam: 'seam here',
} as const

/** Boxes, cylinders, meshes and spans of heights inside which settings differ, or support is wanted or unwanted; a later one wins. */
export function Zones() {
  const { asked, change, card } = useTrial('asked', 'change', 'card')
  const [open, setOpen] = useState<number>()
  const [problem, setProblem] = useState<string>()
  const zones = asked.zones ?? []
  const { width = 100, depth = 100 } = bedSize(card.document.envelope?.bed)
  const at = { x: width / 2, y: depth / 2, z: 0, use: 'settings' as const }
  const add = (zone: Zone) => {
    setOpen(zones.length)
    change((before) => ({ ...before, zones: [...(before.zones ?? []), zone] }))
  }
  const addMesh = async (file: File) => {
    try {
      const [mesh] = await putMesh(file)
      if (mesh) add({ shape: 'mesh', name: `zone ${zones.length + 1}`, file: mesh.hash, ...at })
    } catch (failure) {
      setProblem(sentenceOf(failure))
    }
  }
  return (
    <section aria-label="Zones">
      <div className="head-line between">
        <h2 className="caps">Zones</h2>
        <span className="quiet">
          add a{' '}
          <button
            className="link"
            onClick={() => add({ shape: 'box', name: `zone ${zones.length + 1}`, width: 20, depth: 20, height: 20, ...at })}
          >
            box
          </button>{' '}
          <button
            className="link"
            onClick={() => add({ shape: 'cylinder', name: `zone ${zones.length + 1}`, radius: 10, height: 20, ...at })}
          >
            cylinder
          </button>{' '}
          <button className="link" onClick={() => add({ shape: 'heights', name: `zone ${zones.length + 1}`, height: 5, ...at })}>
            span of heights
          </button>{' '}
          <label className="link">
            mesh
            <input
              type="file"
              accept=".stl,.3mf,.obj,.amf"
              hidden
              onChange={(event) => {
                const file = event.target.files?.[0]
                if (file) void addMesh(file)
                event.target.value = ''
              }}
            />
          </label>
        </span>
      </div>
      {problem && (
        <p className="trouble" role="alert">
          {problem}
        </p>
      )}
      {zones.map((zone, i) => (
        <div key={i} className="zone">
          <div className="head-line between">
            <button className="link plain" aria-expanded={open === i} onClick={() => setOpen(open === i ? undefined : i)}>
              <span className="mono">{open === i ? '−' : '+'}</span> {zone.name}
            </button>
            <span className="quiet">
              {zone.shape === 'heights' ? `from ${plain(zone.z ?? 0)} to ${plain((zone.z ?? 0) + zone.height)} mm` : zone.shape},{' '}
              {uses[zone.use ?? 'settings']}
              {Object.keys(zone.settings ?? {}).length > 0 && `: ${Object.keys(zone.settings ?? {}).length}`}
            </span>
          </div>
          {open === i && <ZoneFields index={i} zone={zone} />}
        </div>
      ))}
    </section>
  )
}

function ZoneFields({ index, zone }: { index: number; zone: Zone }) {
  const departures = useDepartures('zone')
  const { trial } = useTrial('trial')
  const limits = useSchema('trial')
  const at = under('/zones', index)
  const names = [
    ...(zone.shape === 'heights'
      ? []
      : [
          ['x', 'X'],
          ['y', 'Y'],
        ]),
    ['z', 'from Z'],
    ...(zone.shape === 'box'
      ? [
          ['width', 'width'],
          ['depth', 'depth'],
        ]
      : []),
    ...(zone.shape === 'cylinder' ? [['radius', 'radius']] : []),
    ...(zone.shape === 'mesh' ? [] : [['height', 'height']]),
  ] as [keyof Zone, string][]
  return (
    <div className="zone-fields">
      <label className="small-field name">
        name
        <input
          className="plain-field"
          value={zone.name}
          maxLength={100}
          onChange={(event) => event.target.value && trial.set(under(at, 'name'), event.target.value)}
        />
      </label>
      <label className="small-field">
        use
        <select
          className="plain-field"
          aria-label={`${zone.name} use`}
          value={zone.use ?? 'settings'}
          onChange={(event) => trial.set(under(at, 'use'), event.target.value)}
        >
          {Object.entries(uses).map(([word, said]) => (
            <option key={word} value={word}>
              {said}
            </option>
          ))}
        </select>
      </label>
      {names.map(([name, label]) => (
        <label key={name} className="small-field">
          {label}
          <NumberField
            value={zone[name] as unknown as number}
            label={`${zone.name} ${label}`}
            limits={limits(under(at, name))}
            required
            refused={trial.errors[under(at, name)]}
            onChange={(value) => trial.set(under(at, name), value)}
          />
        </label>
      ))}
      {(zone.use ?? 'settings') === 'settings' && (
        <Departures
          name={zone.name}
          rows={departures}
          settings={zone.settings ?? {}}
          onChange={(settings) => trial.set(under(at, 'settings'), settings)}
        />
      )}
      <button className="key" onClick={() => trial.change((before) => ({ ...before, zones: before.zones?.filter((_, i) => i !== index) }))}>
        remove
      </button>
    </div>
  )
}
