import { useState } from 'react'
import type { HeaterAnswer } from '../api/client'
import { useCard } from '../open-card/CardContext'
import { CardNumber } from '../open-card/fields'
import { isWithin, under, valueAt } from '../open-document/pointer'
import { clockTime, plain } from '../units/format'
import { parseLog } from './heatLog'

/** Facts of one heater, its log, and what follows. */
export function HeatFields({ heater }: { heater: HeaterAnswer }) {
  const { document: card, set } = useCard()
  const log = (valueAt(card, under(heater.pointer, 'log')) as number[][] | undefined) ?? []
  const [text, setText] = useState<string>()
  const [wrong, setWrong] = useState<string>()
  const bed = isWithin(heater.pointer, '/heat')
  const { fit } = heater
  const write = (next: string) => {
    setText(next)
    const read = parseLog(next)
    setWrong('error' in read ? read.error : undefined)
    if ('points' in read) set(under(heater.pointer, 'log'), read.points.length > 0 ? read.points : undefined)
  }
  return (
    <>
      {bed && <CardNumber pointer={under(heater.pointer, 'max')} label="rated to" of={heater.name} />}
      <CardNumber pointer={under(heater.pointer, 'best')} label="best ever reached" of={heater.name} />
      <CardNumber pointer={under(heater.pointer, 'bestAtRoom')} label="in a room of" of={heater.name} proposed={card.heat?.room ?? 20} />
      <label className="small-field wide">
        heat-up log: seconds and °C, a pair a line; paste from a spreadsheet
        <textarea
          className="corners"
          rows={5}
          aria-label={`heat-up log of the ${heater.name}`}
          value={text ?? log.map(([s, d]) => `${s}\t${d}`).join('\n')}
          placeholder={'0\t19.5\n60\t27.1\n120\t33.4'}
          onChange={(event) => write(event.target.value)}
          onBlur={() => !wrong && setText(undefined)}
        />
        {wrong && (
          <span className="field-note wrong" role="alert">
            {wrong}
          </span>
        )}
      </label>
      {fit && (
        <p className="small-field wide">
          {fit.tells
            ? `It ends at ${plain(fit.reachable, 1)} °C (${plain(fit.reachableFrom, 1)} to ` +
              `${plain(fit.reachableTo ?? 0, 1)}, 95 %), with a time constant of ${plain(fit.timeConstant, 0)} s.`
            : `The log covers ${plain(fit.covers, 1)} time constants: it cannot tell where the ${heater.name} ends.`}
        </p>
      )}
      <p className="small-field wide quiet">From the room's temperature until a wait for it ends, 1 °C below:</p>
      <p className="small-field wide times">
        {heater.times.map((time) => (
          <span key={time.degrees}>
            <span className="mono">{time.degrees} °C</span> {time.seconds == null ? 'never' : clockTime(time.seconds)}
          </span>
        ))}
      </p>
    </>
  )
}
