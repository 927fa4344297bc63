import { useState } from 'react'
import { api, dataOf, sentenceOf } from '../api/client'

const faults = [
  { name: 'NONE', title: 'none', value: '0', unit: '' },
  { name: 'NOISE', title: 'noise on the line', value: '0.01', unit: 'share of lines' },
  { name: 'LOST_REPLY', title: 'answers get lost', value: '0.01', unit: 'share of lines' },
  { name: 'WRONG_CHECKSUM', title: 'good lines refused', value: '0.02', unit: 'share of lines' },
  { name: 'DROP', title: 'connection breaks', value: '0.01', unit: 'share of lines' },
  { name: 'SILENCE', title: 'falls silent', value: '200', unit: 'lines from now' },
  { name: 'RESTART', title: 'starts anew', value: '200', unit: 'lines from now' },
  { name: 'BUSY', title: 'busy for ever', value: '200', unit: 'lines from now' },
  { name: 'SLOW_HEATER', title: 'slow heater', value: '3', unit: 'times as slow' },
  { name: 'DEAD_HEATER', title: 'heater that stops', value: '1', unit: '' },
]

/** Speed, machine and faults of the stand-in printer. */
export function StandInPanel({ id, onFailure }: { id: string; onFailure: (sentence: string) => void }) {
  const [fault, setFault] = useState('NONE')
  const [value, setValue] = useState('0')
  const chosen = faults.find((one) => one.name === fault)!
  const tell = (command: string) =>
    void api
      .POST('/api/cards/{id}/line/command', { params: { path: { id } }, body: { command: `STAND_IN ${command}` } })
      .then(dataOf)
      .catch((problem: unknown) => onFailure(sentenceOf(problem)))
  return (
    <section className="stand-in-panel" aria-label="Stand-in">
      <h2 className="caps">Stand-in</h2>
      <label>
        speed, times real
        <select className="plain-field" defaultValue="20" onChange={(event) => tell(`SPEED=${event.target.value}`)}>
          {['1', '5', '20', '100', '1000', 'max'].map((speed) => (
            <option key={speed}>{speed}</option>
          ))}
        </select>
      </label>
      <label>
        machine
        <select className="plain-field" defaultValue="dunlin" onChange={(event) => tell(`CARD=${event.target.value}`)}>
          {['dunlin', 'kittiwake', 'cormorant', 'avocet'].map((name) => (
            <option key={name}>{name}</option>
          ))}
        </select>
      </label>
      <label>
        fault
        <select
          className="plain-field"
          value={fault}
          onChange={(event) => {
            setFault(event.target.value)
            setValue(faults.find((one) => one.name === event.target.value)!.value)
          }}
        >
          {faults.map(({ name, title }) => (
            <option key={name} value={name}>
              {title}
            </option>
          ))}
        </select>
      </label>
      {chosen.unit && (
        <label>
          {chosen.unit}
          <input className="plain-field" value={value} onChange={(event) => setValue(event.target.value)} />
        </label>
      )}
      <button className="key" onClick={() => tell(`FAULT=${fault} RATE=${value.replace(',', '.')}`)}>
        Switch
      </button>
    </section>
  )
}
