import { useState } from 'react'
import type { Axis, MotionAnswer } from '../api/client'
import { useCard } from '../open-card/CardContext'
import { CardChoice, CardNumber } from '../open-card/fields'
import { known } from '../open-card/sources'
import { withValue, under } from '../open-document/pointer'
import { NumberField } from '../units/NumberField'
import { plain } from '../units/format'
import { StartsQuestion } from './StartsQuestion'

const kinds = [
  { value: 'belt', label: 'belt' },
  { value: 'screw', label: 'lead screw' },
  { value: 'gear', label: 'wheel, gears' },
]

const starts: Record<string, object> = {
  belt: { kind: 'belt', stepAngle: 1.8, microsteps: 16, teeth: 20, pitch: 2 },
  screw: { kind: 'screw', stepAngle: 1.8, microsteps: 16, pitch: 2 },
  gear: { kind: 'gear', stepAngle: 1.8, microsteps: 16, diameter: 11, ratio: 1 },
}

interface AxisFieldsProps {
  name: 'x' | 'y' | 'z' | 'e'
  answer: MotionAnswer['axes'][number] | undefined
}

/** Facts of one axis: travel, limits, the parts of its drive, and steps per mm as entered, computed and measured. */
export function AxisFields({ name, answer }: AxisFieldsProps) {
  const { document: card, set, change } = useCard()
  const at = under('/motion/axes', name)
  const axis: Axis = card.motion?.axes?.[name] ?? {}
  const drive = axis.drive
  const title = name === 'e' ? 'filament drive' : name.toUpperCase()
  const take = (value: number, source: 'measured' | 'rating-plate') =>
    change((before) =>
      known(withValue(before, under(at, 'stepsPerMm'), Math.round(value * 1000) / 1000), [under(at, 'stepsPerMm')], source),
    )
  const computed = answer?.stepsPerMm
  return (
    <>
      {name !== 'e' && (
        <>
          <CardNumber pointer={under(at, 'min')} label="from" of={title} />
          <CardNumber pointer={under(at, 'max')} label={name === 'x' && card.motion?.layout === 'delta' ? 'radius' : 'to'} of={title} />
        </>
      )}
      <CardNumber pointer={under(at, 'maxSpeed')} label="highest speed" of={title} />
      <CardNumber pointer={under(at, 'maxAcceleration')} label="highest acceleration" of={title} />
      {name !== 'e' && <CardNumber pointer={under(at, 'homingSpeed')} label="homing speed" of={title} />}
      {name === 'z' && (
        <CardChoice
          pointer={under(at, 'homesUp')}
          label="homes"
          of={title}
          choices={[
            { value: 'false', label: 'down, to the bed' },
            { value: 'true', label: 'up, away from it' },
          ]}
        />
      )}
      <label className="small-field">
        driven by
        <select
          className="plain-field"
          aria-label={`${title}, driven by`}
          value={drive?.kind ?? ''}
          onChange={(event) => set(under(at, 'drive'), event.target.value ? starts[event.target.value] : undefined)}
        >
          <option value="">not said</option>
          {kinds.map((kind) => (
            <option key={kind.value} value={kind.value}>
              {kind.label}
            </option>
          ))}
        </select>
      </label>
      {drive && (
        <>
          {drive.kind === 'belt' && (
            <>
              <CardNumber pointer={under(at, 'drive', 'teeth')} label="teeth of the pulley" of={title} />
              <CardNumber pointer={under(at, 'drive', 'pitch')} label="belt pitch" of={title} />
            </>
          )}
          {drive.kind === 'screw' && (
            <>
              <CardNumber pointer={under(at, 'drive', 'pitch')} label="thread pitch" of={title} />
              <CardNumber pointer={under(at, 'drive', 'starts')} label="starts" of={title} />
              {answer && answer.readings.length > 0 && (
                <StartsQuestion
                  readings={answer.readings}
                  onTake={({ pitch, starts }) =>
                    change((before) =>
                      known(
                        withValue(withValue(before, under(at, 'drive', 'pitch'), pitch), under(at, 'drive', 'starts'), starts),
                        [under(at, 'drive', 'starts')],
                        'measured',
                      ),
                    )
                  }
                />
              )}
            </>
          )}
          {drive.kind === 'gear' && (
            <>
              <CardNumber pointer={under(at, 'drive', 'diameter')} label="effective diameter" of={title} />
              <CardNumber pointer={under(at, 'drive', 'ratio')} label="motor turns to one" of={title} />
            </>
          )}
          <CardChoice
            pointer={under(at, 'drive', 'stepAngle')}
            label="step angle"
            of={title}
            choices={[
              { value: '1.8', label: '1.8°' },
              { value: '0.9', label: '0.9°' },
            ]}
            numeric
          />
          <CardChoice
            pointer={under(at, 'drive', 'microsteps')}
            label="microsteps"
            of={title}
            choices={[1, 2, 4, 8, 16, 32, 64, 128, 256].map((m) => ({ value: String(m), label: `1/${m}` }))}
            numeric
          />
        </>
      )}
      <CardNumber pointer={under(at, 'stepsPerMm')} label="steps per mm, entered" of={title} />
      <span className="small-field">
        from the parts
        <span className="bore">
          <span className="mono">{computed == null ? '–' : plain(computed, 2)}</span>
          {computed != null && axis.stepsPerMm != null && Math.abs(axis.stepsPerMm / computed - 1) > 0.0005 && (
            <button className="link" onClick={() => take(computed, 'rating-plate')}>
              use it
            </button>
          )}
        </span>
      </span>
      {answer?.heldTorque != null && (
        <p className="small-field wide quiet">
          One microstep is held by {plain(100 * answer.heldTorque, 1)} % of the torque that holds a full step
          {answer.fullStep != null && ` of ${plain(answer.fullStep, 4)} mm`}.
        </p>
      )}
      <Measured name={title} at={at} axis={axis} answer={answer} onTake={(value) => take(value, 'measured')} />
    </>
  )
}

interface MeasuredProps {
  name: string
  at: string
  axis: Axis
  answer: AxisFieldsProps['answer']
  onTake: (stepsPerMm: number) => void
}

/** What was asked for and what came: the steps per mm that follow, with a small history. */
function Measured({ name, at, axis, answer, onTake }: MeasuredProps) {
  const { set, limits } = useCard()
  const [commanded, setCommanded] = useState<number | undefined>(100)
  const [measured, setMeasured] = useState<number>()
  const history = axis.measurements ?? []
  const note = () => {
    if (!commanded || !measured) return
    set(under(at, 'measurements'), [
      ...history,
      { commanded, measured, stepsPerMm: axis.stepsPerMm ?? undefined, on: new Date().toISOString().slice(0, 10) },
    ])
    setMeasured(undefined)
  }
  return (
    <div className="measured small-field wide">
      <span className="measured-line">
        <span>asked for</span>
        <NumberField
          value={commanded}
          label={`${name}, commanded`}
          limits={limits(under(at, 'measurements', '0', 'commanded'))}
          onChange={setCommanded}
        />
        <span>came</span>
        <NumberField
          value={measured}
          label={`${name}, measured`}
          limits={limits(under(at, 'measurements', '0', 'measured'))}
          onChange={setMeasured}
        />
        <button className="link" disabled={!commanded || !measured} onClick={note}>
          note it
        </button>
      </span>
      {answer?.corrected != null && (
        <span>
          The newest asks for <span className="mono">{plain(answer.corrected, 2)}</span> steps per mm
          {answer.explains ? `, which is 1/${answer.explains.microsteps} microsteps (${plain(answer.explains.stepsPerMm, 2)})` : ''}.{' '}
          {axis.stepsPerMm != null && Math.abs(axis.stepsPerMm / answer.corrected - 1) > 0.0005 && (
            <button className="link" onClick={() => onTake(answer.corrected!)}>
              use {plain(answer.corrected, 2)}
            </button>
          )}
        </span>
      )}
      {history.map((one, i) => (
        <span key={i} className="quiet measured-line">
          {one.on ?? ''} {plain(one.commanded)} asked, {plain(one.measured)} came
          {one.stepsPerMm != null ? ` at ${plain(one.stepsPerMm)}` : ''}
          {one.note ? `, ${one.note}` : ''}
          <button
            className="link quiet"
            aria-label={`forget measurement ${i + 1}`}
            onClick={() => set(under(at, 'measurements', i), undefined)}
          >
            forget
          </button>
        </span>
      ))}
    </div>
  )
}
