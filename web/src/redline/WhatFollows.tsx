import { useQuery } from '@tanstack/react-query'
import { api, dataOf, type Card, type Finding } from '../api/client'
import { SeverityMark } from '../findings/SeverityMark'
import { useFindings } from '../findings/useFindings'
import { useReach } from '../open-card/useReach'
import { documents } from '../open-document/documents'
import { plain } from '../units/format'

const mostTrials = 12

interface WhatFollowsProps {
  id: string
  /** The card as it is. */
  mine: Card
  /** The card with what is chosen taken over; nothing where nothing is. */
  then: Card | undefined
}

/** What taking the chosen differences over would do to findings, reach and the card's trials, before it is done. */
export function WhatFollows({ id, mine, then }: WhatFollowsProps) {
  const [now, after] = [useFindings(mine), useFindings(then ?? mine)]
  if (!then) return <p className="quiet">Choose differences to see what follows from them.</p>
  const unlooked = now.unlooked ?? after.unlooked
  const [come, go] = [without(after.findings, now.findings), without(now.findings, after.findings)]
  return (
    <section aria-label="What follows" className="what-follows">
      <h2 className="caps">What follows</h2>
      {unlooked && <p className="quiet">{unlooked}</p>}
      {!unlooked && come.length + go.length === 0 && <p>No finding appears or goes.</p>}
      {!unlooked && <Told title="Appears" findings={come} />}
      {!unlooked && <Told title="Goes" findings={go} />}
      <Reaches mine={mine} then={then} />
      <Trials id={id} mine={mine} then={then} />
    </section>
  )
}

const without = (findings: readonly Finding[], others: readonly Finding[]) =>
  findings.filter(({ rule, message }) => !others.some((other) => other.rule === rule && other.message === message))

function Told({ title, findings }: { title: string; findings: readonly Finding[] }) {
  if (findings.length === 0) return null
  return (
    <>
      <h3 className="quiet">{title}</h3>
      {findings.map((finding, i) => (
        <p key={i} className="short-finding">
          <SeverityMark severity={finding.severity} /> <span>{finding.message}</span>
        </p>
      ))}
    </>
  )
}

const cm2 = (area: number) => `${plain(area / 100, 1)} cm²`

/** How far the nozzles reach on the bed, now and then. */
function Reaches({ mine, then }: { mine: Card; then: Card }) {
  const [now, after] = [useReach(mine), useReach(then)]
  if (!now || !after) return <p className="quiet">Reach: looking …</p>
  const ids = [...new Set([...now.nozzles, ...after.nozzles].map(({ nozzle }) => nozzle))]
  const area = (of: typeof now, id: string) => of.nozzles.find(({ nozzle }) => nozzle === id)?.area
  const moved = ids.filter((id) => area(now, id) !== area(after, id))
  return (
    <>
      <h3 className="quiet">Reach</h3>
      {moved.length === 0 && <p>The nozzles reach as much of the bed as before.</p>}
      {moved.map((id) => (
        <p key={id}>
          {id}: {area(now, id) === undefined ? 'not there' : cm2(area(now, id)!)} →{' '}
          {area(after, id) === undefined ? 'not there' : cm2(area(after, id)!)}
        </p>
      ))}
    </>
  )
}

/** Which parts of the card's trials fit, now and then. */
function Trials({ id, mine, then }: { id: string; mine: Card; then: Card }) {
  const { data, error } = useQuery({
    queryKey: ['fit-then', id, JSON.stringify(mine), JSON.stringify(then)],
    retry: false,
    queryFn: async ({ signal }) => {
      const heads = await documents.list('trials', id)
      const looked = heads.slice(0, mostTrials)
      const told = await Promise.all(looked.map(({ id: trial }) => changesOf(trial, mine, then, signal)))
      return { told: told.flat(), left: heads.length - looked.length, trials: looked.length }
    },
  })
  if (error) return <p className="quiet">Trials: could not be looked at.</p>
  if (!data) return <p className="quiet">Trials: looking …</p>
  if (data.trials === 0) return null
  return (
    <>
      <h3 className="quiet">Trials</h3>
      {data.told.length === 0 && (
        <p>Every part of {data.trials === 1 ? 'its trial' : `its ${data.trials} trials`} lies as well as before.</p>
      )}
      {data.told.map(({ trial, part, fits, why }, i) => (
        <p key={i} className="short-finding">
          <SeverityMark severity={fits ? 'note' : 'stop'} />{' '}
          <span>
            {trial}, {part}: {fits ? 'fits then' : (why ?? 'does not fit then')}
          </span>
        </p>
      ))}
      {data.left > 0 && <p className="quiet">{data.left} more trials were not looked at.</p>}
    </>
  )
}

async function changesOf(id: string, mine: Card, then: Card, signal: AbortSignal) {
  const { document: trial } = await documents.read('trials', id)
  const parts = trial.parts ?? []
  const recipe = trial.recipe ? (await documents.read('recipes', trial.recipe)).document : undefined
  const ask = async (card: Card) =>
    dataOf(
      await api.POST('/api/trials/fit', {
        body: {
          card: { ...card, routines: undefined, sources: undefined },
          recipe,
          parts,
          limits: trial.limits,
          mode: trial.mode,
          cure: false,
        },
        signal,
      }),
    ).parts
  const [now, after] = [await ask(mine), await ask(then)]
  return parts.flatMap(({ name }, i) =>
    now[i] && after[i] && now[i].fits !== after[i].fits
      ? [{ trial: trial.name ?? 'trial', part: name, fits: after[i].fits === true, why: after[i].violations[0]?.message }]
      : [],
  )
}
