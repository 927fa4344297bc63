import { Button } from '@mui/material'
import { useQuery } from '@tanstack/react-query'
import { Link, useParams } from 'react-router'
import { api, dataOf, sentenceOf, type Card, type PatternHead } from '../api/client'
import { useAnswer } from '../api/useAnswer'
import { Shell } from '../shell/Shell'
import { factGroups, placeOf, type Fact } from '../open-card/facts'
import { cardOfPattern, usePatterns } from '../open-card/patterns'
import { valueAt } from '../open-document/pointer'
import { useSettings } from '../open-document/description'
import { useSchema } from '../open-document/schema'
import { Elevation } from '../drawing/Elevation'
import { Frame } from '../drawing/Frame'
import { Hatches } from '../drawing/Hatches'
import { bedSize } from '../drawing/outline'
import { Plan } from '../drawing/Plan'
import { useSize } from '../drawing/useSize'
import { toX, toY } from '../drawing/view'
import { dayOf, plain } from '../units/format'
import { useStarts } from './useStarts'
import '../drawing/drawing.css'
import './rack.css'

/** A pattern to be looked at: its drawing, its figures, and what follows from them. No card is made. */
export default function PatternPage() {
  const { id = '' } = useParams()
  const { data: heads } = usePatterns()
  const { data: card, error } = useQuery({
    queryKey: ['pattern', id],
    retry: false,
    queryFn: () => cardOfPattern(id),
  })
  const head = heads?.find((pattern) => pattern.id === id)
  const starts = useStarts()
  const named = card && head && { ...card, name: head.name }
  const { data: follows } = useAnswer('consequences', named, async (body, signal) =>
    dataOf(await api.POST('/api/consequences', { body, signal })),
  )
  return (
    <Shell trail={[{ name: 'Rack', to: '/' }]} title={head ? `Pattern: ${head.name}` : 'Pattern'}>
      {error && (
        <p className="nothing" role="alert">
          {sentenceOf(error)}
        </p>
      )}
      {card && head && (
        <main className="pattern-page">
          <PatternDrawing card={card} name={head.name} />
          <div className="pattern-facts">
            <h1>{head.name}</h1>
            <p>{head.about}</p>
            <p>
              <Button variant="contained" onClick={() => void starts.fromPattern(id)}>
                Start a card from it
              </Button>
            </p>
            <p className="quiet">Every figure is assumed: a card from it asks you to confirm them one by one.</p>
            <Versions head={head} />
            <Figures card={card} />
            {follows && (
              <section aria-label="What follows">
                <h2 className="caps">What follows</h2>
                <dl className="follows">
                  {follows.consequences.map((consequence) => (
                    <div key={consequence.title}>
                      <dt className="caps">{consequence.title}</dt>
                      <dd>{consequence.says}</dd>
                    </div>
                  ))}
                </dl>
              </section>
            )}
          </div>
        </main>
      )}
    </Shell>
  )
}

/** Where the pattern comes from, and what was new in each of its versions. */
function Versions({ head }: { head: PatternHead }) {
  return (
    <section aria-label="Versions">
      <h2 className="caps">Versions</h2>
      <p className="quiet">
        From the source <Link to="/pattern-sources">{head.sourceName}</Link>.{!head.listed && ' Its maker does not offer it any more.'}
      </p>
      <table className="list">
        <tbody>
          {head.versions.map(({ version, note, at }) => (
            <tr key={version}>
              <td className="mono">{version}</td>
              <td className="mono">{at ? dayOf(at) : ''}</td>
              <td>{note || (version === 1 ? 'the first' : 'nothing is said of it')}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  )
}

/** The pattern's facts as the schedule names them; what it does not say is left out. */
function Figures({ card }: { card: Card }) {
  const limits = useSchema('card')
  const settings = useSettings('card')
  const nozzles = card.head?.nozzles ?? []
  const said = (fact: Fact) => {
    const value = valueAt(card, fact.pointer)
    if (value === undefined || value === null || !(fact.when?.(card) ?? true)) return undefined
    if (fact.kind === 'origin' || fact.kind === 'home') {
      const at = value as { x: number; y: number }
      return placeOf(card, at)?.label ?? `X ${plain(at.x)}, Y ${plain(at.y)}`
    }
    if (fact.kind === 'yes-no') return value ? 'yes' : 'no'
    if (fact.choices) return fact.choices.find((choice) => choice.value === value)?.label ?? String(value)
    return typeof value === 'number' ? `${plain(value)} ${limits(fact.pointer).unit ?? ''}`.trim() : String(value)
  }
  return (
    <table className="list" aria-label="Its figures">
      <tbody>
        {nozzles.length > 1 && (
          <tr>
            <td>nozzles</td>
            <td className="mono">{nozzles.map((nozzle) => (nozzle.diameter == null ? '?' : plain(nozzle.diameter))).join(', ')} mm</td>
          </tr>
        )}
        {factGroups(settings)
          .flatMap((group) => group.facts)
          .map((fact) => ({ fact, text: said(fact) }))
          .filter(({ text }) => text !== undefined)
          .map(({ fact, text }) => (
            <tr key={fact.pointer}>
              <td>{fact.label}</td>
              <td className="mono">{text}</td>
            </tr>
          ))}
      </tbody>
    </table>
  )
}

function PatternDrawing({ card, name }: { card: Card; name: string }) {
  const [ref, { width: w, height: h }] = useSize<HTMLDivElement>()
  const { width = 200, depth = 200 } = bedSize(card.envelope?.bed)
  const height = card.envelope?.height ?? 200
  const scale = Math.min((w - 150) / width, (h - 190) / (depth + height))
  const left = (w - width * scale) / 2
  const front = { scale, x0: left, y0: 70 + height * scale }
  const plan = { scale, x0: left, y0: 70 + height * scale + 60 + depth * scale }
  return (
    <div className="sheet" ref={ref}>
      {w > 0 && scale > 0 && (
        <svg className="drawing" viewBox={`0 0 ${w} ${h}`} role="img" aria-label={`Drawing of the pattern ${name}`}>
          <Hatches>
            <Frame width={w} height={h} />
            <text x={toX(front, width / 2)} y={toY(front, height) - 12} textAnchor="middle" className="title">
              FRONT
            </text>
            <Elevation card={card} view={front} />
            <text x={toX(plan, width / 2)} y={toY(plan, depth) - 10} textAnchor="middle" className="title">
              FROM ABOVE
            </text>
            <Plan card={card} view={plan} />
          </Hatches>
        </svg>
      )}
    </div>
  )
}
