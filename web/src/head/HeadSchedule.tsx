import { useState } from 'react'
import type { Card } from '../api/client'
import { useCard } from '../open-card/CardContext'
import { CardChoice, CardList, CardNumber, CardText } from '../open-card/fields'
import { SourceMark } from '../open-card/SourceMark'
import { useWords } from '../open-document/description'
import { outlineBox } from '../drawing/outline'
import { useReach } from '../open-card/useReach'
import { plain } from '../units/format'
import { BodyFields } from './BodyFields'
import { NozzleDialog } from './NozzleDialog'
import { under } from '../open-document/pointer'

interface HeadScheduleProps {
  /** Pointer of the entry that is open. */
  open: string | undefined
  onOpen: (pointer: string | undefined) => void
}

const axes = [
  { value: 'x', label: 'along X' },
  { value: 'y', label: 'along Y' },
]
const yesNo = [
  { value: 'true', label: 'yes' },
  { value: 'false', label: 'no' },
]

/** Every fact of the head, by what it belongs to. */
export function HeadSchedule({ open, onOpen }: HeadScheduleProps) {
  const { document: card, set } = useCard()
  const words = useWords('card')
  const head = card.head ?? {}
  const nozzles = head.nozzles ?? []
  const fans = head.fans ?? []
  const several = nozzles.length > 1
  const list = { open, onOpen }
  return (
    <section className="schedule" aria-label="Head">
      <CardList
        {...list}
        pointer="/head/nozzles"
        title="Nozzles"
        letter="K"
        items={nozzles}
        fewest={1}
        add={() => ({ ...nozzles[0], id: `n${nozzles.length + 1}`, offset: { x: 20, y: 0, z: 0 } })}
        name={(nozzle) => nozzle.id}
        about={(nozzle) =>
          [nozzle.diameter ? `Ø ${plain(nozzle.diameter)}` : 'bore ?', words('/head/nozzles/0/material', nozzle.material)]
            .filter(Boolean)
            .join(', ')
        }
      >
        {(at, nozzle, i) => <NozzleFields at={at} index={i} several={several} fans={fans.map((fan) => fan.id)} id={nozzle.id} />}
      </CardList>
      {several && (
        <div className="keep-out-fields bare">
          <CardChoice pointer="/head/changer" label="tools are parked and changed" choices={yesNo} />
          <CardChoice pointer="/head/offsets/firmware" label="firmware applies the offsets" choices={yesNo} />
          <CardChoice pointer="/head/offsets/gcode" label="G-code applies the offsets" choices={yesNo} />
        </div>
      )}

      <CardList
        {...list}
        pointer="/head/bodies"
        title="Bodies beside the nozzle"
        letter="M"
        items={head.bodies ?? []}
        add={() => ({ name: 'fan duct', outline: { shape: 'rectangle' as const, x: -20, y: -20, width: 40, depth: 40 }, underside: 5 })}
        name={(body) => body.name}
        about={(body) => {
          const box = outlineBox(body.outline)
          return `${plain(box.width, 1)} × ${plain(box.depth, 1)}, ${plain(body.underside)} up`
        }}
      >
        {(at, body) => <BodyFields pointer={at} body={body} />}
      </CardList>

      <CardList
        {...list}
        pointer="/head/beams"
        title="Beams"
        letter="R"
        items={head.beams ?? []}
        add={() => ({ along: 'x' as const, near: -20, far: 30, underside: 30 })}
        name={(beam) => `beam along ${beam.along.toUpperCase()}`}
        about={(beam) => `${plain(beam.near)} to ${plain(beam.far)}, ${plain(beam.underside)} up`}
      >
        {(at, beam) => (
          <>
            <CardChoice pointer={under(at, 'along')} label="runs" of="beam" choices={axes} required />
            <CardNumber pointer={under(at, 'underside')} label="S  underside" of="beam" required />
            <CardNumber pointer={under(at, 'near')} label={beam.along === 'x' ? 'R  front face' : 'R  left face'} of="beam" required />
            <CardNumber pointer={under(at, 'far')} label={beam.along === 'x' ? 'R  back face' : 'R  right face'} of="beam" required />
          </>
        )}
      </CardList>

      <div className="group-line">
        <h2 className="caps">Clearance and probe</h2>
      </div>
      <div className="keep-out-fields bare">
        <CardNumber pointer="/head/clearance" label="clearance" proposed={1} />
        <CardChoice pointer="/head/probe/kind" label="U  probe" />
        {head.probe?.kind && head.probe.kind !== 'none' && (
          <>
            <CardNumber pointer="/head/probe/x" label="U  right of the nozzle" of="probe" />
            <CardNumber pointer="/head/probe/y" label="U  behind the nozzle" of="probe" />
            <CardNumber pointer="/head/probe/z" label="Z offset" of="probe" />
            <CardNumber pointer="/head/probe/unevenness" label="bed uneven by" of="probe" />
            <CardNumber pointer="/head/probe/columns" label="points along X" of="probe" />
            <CardNumber pointer="/head/probe/rows" label="points along Y" of="probe" />
            <ZOffsetSteps />
          </>
        )}
      </div>

      <CardList
        {...list}
        pointer="/head/fans"
        title="Fans"
        items={fans}
        add={() => ({ id: `fan ${fans.length + 1}`, kind: 'part' as const, number: fans.length })}
        name={(fan) => fan.id}
        about={(fan) =>
          [words('/head/fans/0/kind', fan.kind), fan.number == null ? undefined : `no. ${fan.number}`].filter(Boolean).join(', ')
        }
      >
        {(at, fan) => (
          <>
            <CardText pointer={under(at, 'id')} label="name" of={fan.id} />
            <CardChoice pointer={under(at, 'kind')} label="blows" of={fan.id} required />
            <CardNumber pointer={under(at, 'number')} label="number in the firmware" of={fan.id} />
            <CardNumber pointer={under(at, 'offBelow')} label="goes off by itself below" of={fan.id} />
          </>
        )}
      </CardList>

      {nozzles.length >= 2 && (
        <>
          <CardList
            {...list}
            pointer="/head/carriages"
            title="Two carriages"
            letter="G"
            items={head.carriages ?? []}
            add={(head.carriages?.length ?? 0) < 2 ? () => newCarriage(card) : undefined}
            name={(carriage, i) => `${i === 0 ? 'left' : 'right'}, nozzle ${carriage.nozzle}`}
            about={(carriage) => `${plain(carriage.min)} to ${plain(carriage.max)}`}
          >
            {(at) => (
              <>
                <CardChoice
                  pointer={under(at, 'nozzle')}
                  label="carries nozzle"
                  of="carriage"
                  choices={nozzles.map((n) => ({ value: n.id, label: n.id }))}
                  required
                />
                <CardNumber pointer={under(at, 'park')} label="parks at X" of="carriage" required />
                <CardNumber pointer={under(at, 'min')} label="from X" of="carriage" required />
                <CardNumber pointer={under(at, 'max')} label="to X" of="carriage" required />
              </>
            )}
          </CardList>
          {(head.carriages?.length ?? 0) > 0 && (
            <div className="keep-out-fields bare">
              <CardNumber pointer="/head/leastDistance" label="G  nozzles no nearer than" />
              {(card.modes?.length ?? 0) === 0 && (
                <button
                  className="link"
                  onClick={() => set('/modes', [{ kind: 'single' }, { kind: 'copy' }, { kind: 'mirror' }, { kind: 'two-material' }])}
                >
                  add its modes
                </button>
              )}
            </div>
          )}
        </>
      )}
    </section>
  )
}

function newCarriage(card: Card) {
  const nozzles = card.head?.nozzles ?? []
  const carriages = card.head?.carriages ?? []
  const { min, max } = card.motion?.axes?.x ?? {}
  const [from, to] = [min ?? 0, max ?? 300]
  return { nozzle: nozzles[carriages.length]?.id ?? 'n1', min: from, max: to, park: carriages.length === 0 ? from : to }
}

/** How well the materials that need no asking stand wear. */
const wearOf: Record<string, string> = { hardened: 'high', brass: 'low' }

function NozzleFields({ at, index, several, fans, id }: { at: string; index: number; several: boolean; fans: string[]; id: string }) {
  const { document: card, set } = useCard()
  const words = useWords('card')
  const [changing, setChanging] = useState(false)
  const reach = useReach(card)
  const nozzle = card.head!.nozzles![index]!
  const tube = nozzle.feed?.kind === 'long-tube'
  const grey = reach?.nozzles[index]?.proposed
  return (
    <>
      <span className="small-field">
        K bore
        <span className="bore">
          <span className="mono">{nozzle.diameter ? `${plain(nozzle.diameter)} mm` : '?'}</span>
          <button className="link" onClick={() => setChanging(true)}>
            change
          </button>
          <SourceMark pointer={under(at, 'diameter')} />
        </span>
      </span>
      <CardNumber pointer={under(at, 'filamentDiameter')} label="L  filament" of={id} required />
      <CardChoice pointer={under(at, 'material')} label="material" of={id} />
      {nozzle.material === 'other' ? (
        <CardChoice pointer={under(at, 'wear')} label="stands wear" of={id} />
      ) : (
        <span className="small-field">
          stands wear
          <span className="quiet">{words('/head/nozzles/0/wear', wearOf[nozzle.material ?? '']) ?? 'not known'}</span>
        </span>
      )}
      <CardChoice pointer={under(at, 'feed', 'kind')} label="feed" of={id} />
      {tube ? <CardNumber pointer={under(at, 'feed', 'length')} label="tube length" of={id} /> : <span />}
      <CardNumber pointer={under(at, 'maxTemperature')} label="hot end rated to" of={id} />
      <CardNumber pointer={under(at, 'maxFlow')} label="melts up to" of={id} />
      {(several || index > 0) && (
        <>
          <CardNumber pointer={under(at, 'offset', 'x')} label="T  offset X" of={id} />
          <CardNumber pointer={under(at, 'offset', 'y')} label="T  offset Y" of={id} />
          <CardNumber pointer={under(at, 'offset', 'z')} label="T  offset Z" of={id} />
          <span />
        </>
      )}
      <CardNumber pointer={under(at, 'retraction', 'length')} label="pulls back" of={id} proposed={grey?.length ?? undefined} />
      <CardNumber pointer={under(at, 'retraction', 'speed')} label="at" of={id} proposed={grey?.speed ?? undefined} />
      <CardNumber pointer={under(at, 'retraction', 'lift')} label="Z hop" of={id} proposed={grey?.lift ?? undefined} />
      <CardNumber pointer={under(at, 'retraction', 'wipe')} label="wipes back" of={id} proposed={grey?.wipe ?? undefined} />
      {fans.length > 0 && (
        <fieldset className="small-field wide fan-choice">
          <legend>cooled by</legend>
          {fans.map((fan) => (
            <label key={fan}>
              <input
                type="checkbox"
                checked={nozzle.fans?.includes(fan) ?? false}
                onChange={(event) =>
                  set(
                    under(at, 'fans'),
                    event.target.checked ? [...(nozzle.fans ?? []), fan] : (nozzle.fans ?? []).filter((f) => f !== fan),
                  )
                }
              />
              {fan}
            </label>
          ))}
        </fieldset>
      )}
      {changing && <NozzleDialog pointer={at} nozzle={nozzle} onClose={() => setChanging(false)} />}
    </>
  )
}

/** The Z offset in the steps in which first layers are tuned. */
function ZOffsetSteps() {
  const { document: card, set } = useCard()
  const z = card.head?.probe?.z
  if (z === undefined || z === null) return null
  const by = (step: number) => () => set('/head/probe/z', Math.round((z + step) * 1000) / 1000)
  return (
    <span className="small-field wide z-steps">
      <button className="key" onClick={by(-0.02)}>
        − 0.02 nearer to the bed
      </button>
      <button className="key" onClick={by(0.02)}>
        + 0.02 further away
      </button>
    </span>
  )
}
