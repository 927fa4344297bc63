import type { ComponentType } from 'react'
import { Link } from 'react-router'
import { SeverityMark } from '../findings/SeverityMark'
import { outcomes } from '../settings/outcomes'
import { plain } from '../units/format'
import type { Limits } from '../units/limits'
import { orderOfWork } from './order'
import { useHandbook } from './useHandbook'
import { ownWords, tradeWords } from './words'

interface ChapterProps {
  /** Words that what is shown must hold; empty for all of it. */
  sought: string
}

const holds = (sought: string, ...texts: (string | null | undefined)[]) =>
  sought === '' || sought.split(/\s+/).every((word) => texts.join(' ').toLowerCase().includes(word))

function Order({ sought }: ChapterProps) {
  return orderOfWork.map(({ title, picture, says }, i) =>
    holds(sought, title, says) ? (
      <article key={title} className="step">
        <h2>
          {i + 1}. {title}
        </h2>
        <p>{says}</p>
        <img src={picture} alt={`${title}: the page`} width="1280" height="800" loading="lazy" />
      </article>
    ) : null,
  )
}

function Words({ sought }: ChapterProps) {
  const list = (title: string, words: [string, string][]) => {
    const shown = words.filter(([word, means]) => holds(sought, word, means))
    if (shown.length === 0) return null
    return (
      <>
        <h2>{title}</h2>
        <dl>
          {shown.map(([word, means]) => (
            <div key={word} id={word}>
              <dt>{word}</dt>
              <dd>{means}</dd>
            </div>
          ))}
        </dl>
      </>
    )
  }
  return (
    <>
      {list('Our own', ownWords)}
      {list('The trade’s, as it uses them', tradeWords)}
    </>
  )
}

function Rules({ sought }: ChapterProps) {
  const { rules } = useHandbook()
  return rules
    ?.filter(({ rule, about, why, says }) => holds(sought, rule, about, why, says))
    .map(({ rule, severity, about, why, example, line, says, cure }) => (
      <article key={rule} id={rule} className="rule">
        <h2>
          <SeverityMark severity={severity} /> {rule.replaceAll('-', ' ')}
        </h2>
        <p>{about}</p>
        <p className="quiet">{why}</p>
        {line ? (
          <ol className="mono program">
            {example.split('\n').map((text, i) => (
              <li key={i} className={i + 1 === line ? 'lit' : undefined}>
                {text}
              </li>
            ))}
          </ol>
        ) : (
          <p className="example">{example}:</p>
        )}
        <p>
          “{says}”{cure && <span className="cure"> Its cure: {cure}.</span>}
        </p>
      </article>
    ))
}

function Settings({ sought }: ChapterProps) {
  const { settings } = useHandbook()
  return settings.map(([kind, all]) => {
    const shown = all.filter(({ name, label, group, also, says }) => holds(sought, kind, name, label, group, also, says))
    if (shown.length === 0) return null
    return (
      <table key={kind} className="list">
        <caption>{kind}</caption>
        <thead>
          <tr>
            <th>setting</th>
            <th>unit</th>
            <th>limits</th>
            <th>what it moves</th>
          </tr>
        </thead>
        <tbody>
          {shown.map(({ pointer, name, group, limits, says, tends, hint }) => (
            <tr key={pointer} id={`${kind.toLowerCase()}${pointer}`}>
              <td>
                {name} <span className="quiet">{group}</span>
              </td>
              <td className="mono">{limits.unit}</td>
              <td className="mono">{saidLimits(limits)}</td>
              <td>
                {says ?? hint}{' '}
                <span className="quiet">{tends.map(([outcome, by]) => `${outcomes[outcome].word} ${by > 0 ? '+' : '−'}`).join(', ')}</span>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    )
  })
}

/** What a number may be. */
function saidLimits({ above, least, most }: Limits): string {
  const from = above === undefined ? least !== undefined && plain(least) : `more than ${plain(above)}`
  if (from === false) return most === undefined ? '' : `at most ${plain(most)}`
  return most === undefined ? `at least ${from}` : `${from} to ${plain(most)}`
}

function Names({ sought }: ChapterProps) {
  const { names } = useHandbook()
  return (
    <table className="list">
      <tbody>
        {Object.entries(names)
          .filter(([name, about]) => holds(sought, name, about))
          .map(([name, about]) => (
            <tr key={name} id={name}>
              <td className="mono">{`{{ ${name} }}`}</td>
              <td>{about}</td>
            </tr>
          ))}
      </tbody>
    </table>
  )
}

function Dialects({ sought }: ChapterProps) {
  const { flavours } = useHandbook()
  return flavours.map(({ id, name, source, commands }) => {
    const shown = commands.filter(({ word, about }) => holds(sought, name, word, about))
    if (shown.length === 0) return null
    return (
      <table key={id} className="list">
        <caption>
          {name} <span className="quiet">{source}</span>
        </caption>
        <tbody>
          {shown.map(({ word, about, parameters }) => (
            <tr key={word} id={`${id}-${word}`}>
              <td className="mono">{word}</td>
              <td>{about}</td>
              <td>
                {parameters?.map((one) => (
                  <span key={one.name} className="parameter">
                    <span className="mono">{one.name}</span> {one.about}
                    {one.unit && `, ${one.unit}`}
                  </span>
                ))}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    )
  })
}

function Gauges({ sought }: ChapterProps) {
  const { gauges } = useHandbook()
  return (
    <dl>
      {gauges
        ?.filter(({ name, about }) => holds(sought, name, about))
        .map(({ id, name, about }) => (
          <div key={id} id={id}>
            <dt>{name}</dt>
            <dd>{about}</dd>
          </div>
        ))}
    </dl>
  )
}

function Formulas({ sought }: ChapterProps) {
  const { formulas } = useHandbook()
  return (
    <table className="list">
      <thead>
        <tr>
          <th>gives</th>
          <th>formula</th>
          <th>source</th>
        </tr>
      </thead>
      <tbody>
        {formulas
          ?.filter(({ name, text, source }) => holds(sought, name, text, source))
          .map(({ name, text, where, source }) => (
            <tr key={name}>
              <td>{name}</td>
              <td>
                <span className="mono">{text}</span>
                <br />
                <span className="quiet">{where}</span>
              </td>
              <td>{source}</td>
            </tr>
          ))}
      </tbody>
    </table>
  )
}

function Scripts({ sought }: ChapterProps) {
  if (!holds(sought, 'script api address openapi')) return null
  return (
    <p>
      Everything that the pages do can be asked for by a script: <a href="/openapi/v1.json">/openapi/v1.json</a> describes every address
      with its bodies and refusals. <Link to="/">The rack</Link> and all other pages use nothing else.
    </p>
  )
}

export type ChapterName = 'order' | 'words' | 'rules' | 'settings' | 'names' | 'dialects' | 'gauges' | 'formulas' | 'scripts'

/** The chapters, in the order in which they stand. */
export const chapters: Record<ChapterName, { title: string; Chapter: ComponentType<ChapterProps> }> = {
  order: { title: 'The order of work', Chapter: Order },
  words: { title: 'Words', Chapter: Words },
  rules: { title: 'Rules and findings', Chapter: Rules },
  settings: { title: 'Facts and settings', Chapter: Settings },
  names: { title: 'Names for routines', Chapter: Names },
  dialects: { title: 'Dialects and their commands', Chapter: Dialects },
  gauges: { title: 'Gauge pieces', Chapter: Gauges },
  formulas: { title: 'Formulas', Chapter: Formulas },
  scripts: { title: 'Scripts', Chapter: Scripts },
}
