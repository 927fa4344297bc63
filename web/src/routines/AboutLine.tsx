import type { FlavourAnswer } from '../api/client'
import { HandbookLink } from '../shell/HandbookLink'
import { wordsOf } from './wordsOf'

interface AboutLineProps {
  line: string
  flavour: FlavourAnswer | undefined
  names: Record<string, string>
}

/** What the command and the names of a line are, with the way to the handbook. */
export function AboutLine({ line, flavour, names }: AboutLineProps) {
  const { command, names: used } = wordsOf(line)
  const known = flavour?.commands.find(({ word }) => word === command)
  const told = used.filter((name) => names[name] !== undefined)
  if (!known && told.length === 0) return null
  return (
    <dl className="about-line" aria-label="About this line">
      {known && flavour && (
        <div>
          <dt className="mono">
            <HandbookLink chapter="dialects" of={`${flavour.id}-${known.word}`} label={`About ${known.word}`} className="">
              {known.word}
            </HandbookLink>
          </dt>
          <dd>{known.about}</dd>
        </div>
      )}
      {told.map((name) => (
        <div key={name}>
          <dt className="mono">
            <HandbookLink chapter="names" of={name} label={`About ${name}`} className="">
              {name}
            </HandbookLink>
          </dt>
          <dd>{names[name]}</dd>
        </div>
      ))}
    </dl>
  )
}
