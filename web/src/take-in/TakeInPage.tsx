import { Button } from '@mui/material'
import { useState, type ReactNode } from 'react'
import { Link } from 'react-router'
import { sentenceOf, type ReviewedDocument, type TakenDocument } from '../api/client'
import { take } from '../exchange/packets'
import { chosenFiles } from '../exchange/filesOf'
import { drop, hold, useDropped, type DroppedFile } from '../exchange/dropped'
import type { Kind, Kinds } from '../open-document/documents'
import { Shell } from '../shell/Shell'
import { LooseFiles } from './LooseFiles'
import { StandingMark, standingWords } from './StandingMark'
import { useReview } from './useReview'
import './take-in.css'

const titles = { card: 'Cards', filament: 'Filaments', recipe: 'Recipes', trial: 'Trials' } as const

/** What was dropped, each document told apart, before anything is taken. */
export default function TakeInPage() {
  const files = useDropped(({ files }) => files)
  const drops = useDropped(({ drops }) => drops)
  return (
    <Shell trail={[{ name: 'Rack', to: '/' }]} title="Take in">
      <main className="page take-in">
        <div className="head-line between">
          <h1 className="caps">Take in</h1>
          <span className="take-in-pick">
            <Pick>choose files</Pick>
            <Pick folder>choose a folder</Pick>
          </span>
        </div>
        {files.length === 0 ? (
          <p className="nothing">
            Drop packets, documents, meshes, G-code, settings reports or macro files on any page: single files, folders, zips, zips in zips.
            Each is looked at here; nothing is taken before you say so.
          </p>
        ) : (
          <Reviewed key={drops} files={files} drop={drops} />
        )}
      </main>
    </Shell>
  )
}

/** One drop under review. */
function Reviewed({ files, drop }: { files: readonly DroppedFile[]; drop: number }) {
  const { review, error, looking, again } = useReview(files, drop)
  const [flipped, flip] = useState<ReadonlySet<string>>(new Set())
  const [taken, setTaken] = useState<ReadonlyMap<string, TakenDocument>>(new Map())
  const [taking, setTaking] = useState(false)
  const [failure, setFailure] = useState('')
  const documents = review?.documents ?? []
  // what is here in another state is not taken without a word: it would stand beside what is here
  const chosen = documents.filter((one) => canTake(one) && !taken.has(one.path) && (one.standing === 'new') !== flipped.has(one.path))
  const takeChosen = async () => {
    setTaking(true)
    setFailure('')
    try {
      const paths = chosen.map(({ path }) => path)
      const answer = await take(files, paths)
      setTaken(new Map([...taken, ...answer.map((one) => [one.path, one] as const)]))
      flip(new Set())
      again()
    } catch (problem) {
      setFailure(sentenceOf(problem))
    }
    setTaking(false)
  }
  const toggle = (path: string) => flip(new Set(flipped.has(path) ? [...flipped].filter((one) => one !== path) : [...flipped, path]))
  const trouble = error ?? failure
  return (
    <>
      {looking && <p role="status">Looking at {files.length === 1 ? files[0]!.path : `${files.length} files`} …</p>}
      {trouble && (
        <p className="trouble" role="alert">
          {trouble}
        </p>
      )}
      {(Object.keys(titles) as (keyof typeof titles)[]).map((kind) => (
        <Documents key={kind} title={titles[kind]}>
          {documents
            .filter((one) => one.kind === kind)
            .map((one) => (
              <Row key={one.path} one={one} taken={taken.get(one.path)} on={chosen.includes(one)} onToggle={() => toggle(one.path)} />
            ))}
        </Documents>
      ))}
      {documents.length > 0 && (
        <p className="take-in-keys">
          <Button variant="contained" disabled={chosen.length === 0 || taking || looking} onClick={() => void takeChosen()}>
            {taking ? 'Taking …' : `Take ${chosen.length === 0 ? '…' : counted(chosen.length)}`}
          </Button>
          <span className="quiet">All of them are taken, or none. A name that is here already gets a number.</span>
        </p>
      )}
      {review && <LooseFiles files={files} loose={review.loose} />}
    </>
  )
}

const counted = (count: number) => (count === 1 ? 'one document' : `${count} documents`)

const canTake = ({ standing }: ReviewedDocument) => standing === 'new' || standing === 'different'

function Pick({ folder = false, children }: { folder?: boolean; children: ReactNode }) {
  return (
    <label className="link">
      {children}
      <input
        type="file"
        hidden
        multiple
        {...(folder ? { webkitdirectory: '' } : {})}
        {...(folder ? { 'data-take-folder': true } : { 'data-take-files': true })}
        onChange={(event) => {
          const files = chosenFiles(event.target.files ?? [])
          if (files.length > 0) drop(files)
          event.target.value = ''
        }}
      />
    </label>
  )
}

function Documents({ title, children }: { title: string; children: ReactNode[] }) {
  if (children.length === 0) return null
  return (
    <table className="list take-in-table" aria-label={title}>
      <thead>
        <tr>
          <th />
          <th>{title}</th>
          <th>stands</th>
          <th>to be known</th>
        </tr>
      </thead>
      <tbody>{children}</tbody>
    </table>
  )
}

interface RowProps {
  one: ReviewedDocument
  taken: TakenDocument | undefined
  on: boolean
  onToggle: () => void
}

function Row({ one, taken, on, onToggle }: RowProps) {
  const name = one.name || `${one.kind} without a name`
  const comes = [several(one.revisions, one.kind === 'trial' ? 'variant' : 'revision'), several(one.prints, 'print')].filter(Boolean)
  return (
    <tr data-standing={taken ? 'taken' : one.standing} data-path={one.path}>
      <td>{canTake(one) && !taken && <input type="checkbox" aria-label={`take ${name}`} checked={on} onChange={onToggle} />}</td>
      <td>
        <strong>{name}</strong>
        <br />
        <span className="quiet mono path">{one.path}</span>
      </td>
      <td>
        {taken ? (
          <>
            taken as <Link to={`/${taken.kind}s/${taken.id}`}>{taken.name || 'without a name'}</Link>
          </>
        ) : (
          <>
            <StandingMark standing={one.standing} /> {standingWords[one.standing]}
            {one.against && (
              <>
                {' '}
                <Link to={`/${one.kind}s/${one.against}`}>{one.againstName || 'without a name'}</Link>
              </>
            )}
            {one.standing === 'different' && one.against && one.kind !== 'trial' && <ToRedline one={one} against={one.against} />}
          </>
        )}
      </td>
      <td>
        {one.says && <p>{one.says}</p>}
        {one.notes.map((note) => (
          <p key={note}>{note}</p>
        ))}
        {comes.length > 0 && <p className="quiet">with {comes.join(' and ')}</p>}
        {one.standing === 'different' && <p className="quiet">Taken, it stands beside the one here.</p>}
      </td>
    </tr>
  )
}

/** The way to the redline of the one here against this one; it is held as it lay, for as long as this tab is open. */
function ToRedline({ one, against }: { one: ReviewedDocument; against: string }) {
  const kind = `${one.kind}s` as Kind
  const key = one.path
  return (
    <>
      {' · '}
      <Link
        to={`/${kind}/${against}/redline?with=${encodeURIComponent(`file.${key}`)}`}
        onClick={() => hold({ kind, path: one.path, document: one.document as Kinds[Kind] })}
      >
        redline
      </Link>
    </>
  )
}

function several(count: number, what: string): string {
  if (count === 0) return ''
  return count === 1 ? `one ${what}` : `${count} ${what}s`
}
