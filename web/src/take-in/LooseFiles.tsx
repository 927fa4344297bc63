import { useQuery } from '@tanstack/react-query'
import { useSnackbar } from 'notistack'
import { useState } from 'react'
import { Link, useNavigate } from 'react-router'
import { sentenceOf, type LooseFile } from '../api/client'
import { SeverityMark } from '../findings/SeverityMark'
import { handOn, type DroppedFile, type Lead } from '../exchange/dropped'
import { fileAt } from '../exchange/packets'
import { DocumentOptions } from '../open-document/DocumentOptions'
import { documents } from '../open-document/documents'
import { firstChoice } from '../open-document/firstChoice'

const words: Record<LooseFile['kind'], string> = {
  mesh: 'mesh',
  picture: 'picture',
  program: 'G-code',
  'settings-report': 'settings report',
  macros: 'macro file',
  manifest: 'packet',
  patterns: 'pattern source',
  damaged: 'damaged',
  'not-ours': 'not ours',
}

const leads: Partial<Record<LooseFile['kind'], { lead: Lead; says: string; to: (card: string) => string }>> = {
  mesh: { lead: 'mesh', says: 'lay it on the bed', to: () => '/trials' },
  program: { lead: 'program', says: 'learn from it', to: (card) => `/cards/${card}/routines` },
  'settings-report': { lead: 'settings-report', says: 'take its facts', to: (card) => `/cards/${card}/motion` },
  macros: { lead: 'macros', says: 'keep it on the card', to: (card) => `/cards/${card}/routines` },
}

/** What was dropped beside documents: where it leads to, or why it leads nowhere. */
export function LooseFiles({ files, loose }: { files: readonly DroppedFile[]; loose: readonly LooseFile[] }) {
  const { data: cards } = useQuery({ queryKey: ['list', 'cards'], queryFn: () => documents.list('cards') })
  const [wanted, want] = useState<string>()
  const card = wanted ?? cards?.[0]?.id
  const go = useNavigate()
  const { enqueueSnackbar } = useSnackbar()
  if (loose.length === 0) return null
  const lead = async ({ path, kind }: LooseFile) => {
    const way = leads[kind]
    if (!way || !card) return
    try {
      const file = await fileAt(files, path)
      handOn(way.lead, file)
      await go(kind === 'mesh' ? `/trials/${await newTrial(file.name, card)}` : way.to(card))
    } catch (problem) {
      enqueueSnackbar(sentenceOf(problem), { variant: 'error' })
    }
  }
  const leading = loose.some(({ kind }) => leads[kind])
  return (
    <section aria-label="Other files">
      <div className="head-line between">
        <h2 className="caps">Other files</h2>
        {leading && (
          <label className="quiet for-card">
            for the card{' '}
            <select className="plain-field" aria-label="for the card" value={card ?? ''} onChange={(event) => want(event.target.value)}>
              <DocumentOptions of={cards} />
            </select>
          </label>
        )}
      </div>
      <table className="list take-in-table">
        <tbody>
          {loose.map((one) => (
            <tr key={one.path} data-kind={one.kind}>
              <td>{one.kind === 'damaged' && <SeverityMark severity="stop" size={12} />}</td>
              <td>
                <span className="mono path">{one.path}</span>
              </td>
              <td>{words[one.kind]}</td>
              <td>
                {one.says}{' '}
                {leads[one.kind] && (
                  <button className="link" disabled={!card} onClick={() => void lead(one)}>
                    {leads[one.kind]!.says}
                  </button>
                )}
                {one.kind === 'patterns' && (
                  <Link to={`/pattern-sources?${new URLSearchParams({ list: one.path }).toString()}`}>look at it</Link>
                )}
                {one.kind === 'picture' && <span className="quiet">belongs to a print: add it on the card’s page of prints</span>}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  )
}

/** A trial on the card for one file. */
async function newTrial(file: string, card: string): Promise<string> {
  const made = await documents.make('trials', {
    schema: 'mill-card/trial/1',
    name: file.replace(/\.[^.]*$/, '').slice(0, 120) || 'Trial',
    card,
    ...(await firstChoice(card)),
    parts: [],
  })
  return made.id
}
