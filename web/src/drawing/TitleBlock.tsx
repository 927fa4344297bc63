import type { Card } from '../api/client'
import { useWords } from '../open-document/description'
import { plain } from '../units/format'

const row = 31

/** Its height on the sheet, px. */
export const titleBlockHeight = 4 * row

interface TitleBlockProps {
  card: Card
  /** Draft or revision, and whether it is proved. */
  state: string
  savedAt: string
  right: number
  bottom: number
}

/** The title block at the lower right of the sheet, after ISO 7200. */
export function TitleBlock({ card, state, savedAt, right, bottom }: TitleBlockProps) {
  const words = useWords('card')
  const width = 240
  const [x, y] = [right - width, bottom - titleBlockHeight]
  const nozzle = card.head?.nozzles?.[0]
  const said = (value: string | number | null | undefined) => (typeof value === 'number' ? plain(value) : value || '?')
  const cells: [string, string, number, number, number][] = [
    ['FLAVOUR', said(words('/firmware/flavour', card.firmware?.flavour)), 0, 1, 0.5],
    ['NOZZLE', nozzle?.diameter ? `${plain(nozzle.diameter)} ${nozzle.material ?? ''}` : '?', 0.5, 1, 0.5],
    ['FILAMENT', said(nozzle?.filamentDiameter), 0, 2, 0.5],
    ['BED', heatedOf(card), 0.5, 2, 0.5],
    ['HOUSING', said(words('/heat/housing', card.heat?.housing)), 0, 3, 0.5],
    state === 'draft' ? ['STATE, DATE', `draft, ${savedAt.slice(0, 10)}`, 0.5, 3, 0.5] : ['STATE', state, 0.5, 3, 0.5],
  ]
  return (
    <g className="title-block" aria-label="title block">
      <rect x={x} y={y} width={width} height={titleBlockHeight} className="paper" />
      <text x={x + 8} y={y + 21} className="name">
        {clipped(card.name || 'no name yet', 16)}
      </text>
      <text x={right - 8} y={y + 20} textAnchor="end">
        {clipped(card.maker ?? '', 22)}
      </text>
      {cells.map(([what, value, at, line, share]) => (
        <g key={what}>
          <rect x={x + at * width} y={y + line * row} width={share * width} height={row} />
          <text x={x + at * width + 8} y={y + line * row + 11} className="what">
            {what}
          </text>
          <text x={x + at * width + 8} y={y + line * row + 25} className="said">
            {clipped(value, 18)}
          </text>
        </g>
      ))}
    </g>
  )
}

const clipped = (text: string, most: number) => (text.length > most ? `${text.slice(0, most - 1)}…` : text)

function heatedOf({ envelope }: Card): string {
  if (envelope?.heated == null) return '?'
  return envelope.heated ? 'heated' : 'not heated'
}
