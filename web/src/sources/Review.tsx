import { Button } from '@mui/material'
import { useQuery } from '@tanstack/react-query'
import { useSnackbar } from 'notistack'
import { useState } from 'react'
import { sentenceOf, type SourceReview } from '../api/client'
import { SeverityMark } from '../findings/SeverityMark'
import { dayOf } from '../units/format'
import { look, take, type From } from './reading'

const standings: Record<SourceReview['standing'], string> = {
  new: 'New here. Its key will be pinned: compare it with what its maker tells you by other means.',
  newer: 'Newer than what is here, and signed with the key that is pinned.',
  same: 'The same as what is here.',
  older: 'Older than what is here.',
  'other-key': 'Signed with another key.',
  changed: 'Other figures under a number that is known.',
  reserved: 'The id is taken.',
}

/** A source that was read, before it is taken: who signed it, what is in it, what is new. */
export function Review({ from, onDone }: { from: From; onDone: () => Promise<unknown> }) {
  const { data, error } = useQuery({
    queryKey: ['source-review', 'place' in from ? from.place : from.list],
    gcTime: 0,
    staleTime: Infinity,
    retry: false,
    queryFn: () => look(from),
  })
  const { enqueueSnackbar } = useSnackbar()
  const [taking, setTaking] = useState(false)
  if (error)
    return (
      <p className="trouble" role="alert">
        {sentenceOf(error)}
      </p>
    )
  if (!data) return <p role="status">It is being read …</p>
  const takeIt = async () => {
    setTaking(true)
    try {
      await take(from, data.key)
      enqueueSnackbar(`${data.name} is taken.`)
      await onDone()
    } catch (failure) {
      enqueueSnackbar(sentenceOf(failure), { variant: 'error', persist: true })
      setTaking(false)
    }
  }
  return (
    <section className="source-review" aria-label={`The source ${data.name}`}>
      <h3>{data.name}</h3>
      <p>{data.about}</p>
      <dl>
        <dt>signed</dt>
        <dd>
          {data.signedAt ? `${dayOf(data.signedAt)}, ` : ''}number {data.number}; signature and checksums hold
        </dd>
        <dt>key</dt>
        <dd className="mono key-print">{data.key}</dd>
        <dt>stands</dt>
        <dd>
          {data.refused ? (
            <>
              <SeverityMark severity="stop" size={12} /> {data.refused}
            </>
          ) : (
            standings[data.standing]
          )}
        </dd>
      </dl>
      <table className="list" aria-label="Its patterns">
        <tbody>
          {data.patterns.map((one) => (
            <tr key={one.name}>
              <td>{one.name}</td>
              <td className="mono">{versionsOf(one)}</td>
              <td>{one.note || one.about}</td>
            </tr>
          ))}
        </tbody>
      </table>
      {data.left.map((sentence) => (
        <p key={sentence}>
          <SeverityMark severity="note" size={12} /> {sentence}
        </p>
      ))}
      {!data.refused && data.standing !== 'same' && (
        <Button variant="contained" disabled={taking} onClick={() => void takeIt()}>
          {data.standing === 'new' ? 'Pin this key and take it' : 'Take it'}
        </Button>
      )}
    </section>
  )
}

const versionsOf = ({ here, version }: SourceReview['patterns'][number]) => {
  if (here == null) return `version ${version}, new`
  return here < version ? `${here} → ${version}` : `version ${version}`
}
