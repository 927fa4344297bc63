import { useQuery } from '@tanstack/react-query'
import { api, dataOf } from '../api/client'
import { useCard } from '../open-card/CardContext'
import { nameOf, shown } from '../open-document/names'
import { fieldPointer } from '../open-document/pointer'
import { redline } from '../open-document/redline'

const most = 6

/** The values in which a revision differs from the one before it. */
export function Changes({ id, letter, before }: { id: string; letter: string; before: string | undefined }) {
  const { limits, choices } = useCard()
  const { data } = useQuery({
    queryKey: ['revision-changes', id, letter],
    enabled: before !== undefined,
    // a revision never changes
    staleTime: Infinity,
    queryFn: async () => {
      const read = async (one: string) =>
        dataOf(await api.GET('/api/cards/{id}/revisions/{letter}', { params: { path: { id, letter: one } } }))
      const both = [await read(before!), await read(letter)] as const
      return { both, differences: redline(both[0], both[1]).filter(({ path }) => path[0] !== 'sources') }
    },
  })
  if (!data) return null
  const said = (path: readonly string[], value: unknown) => {
    const pointer = fieldPointer(path)
    const word = typeof value === 'string' ? choices(pointer).find((choice) => choice.value === value)?.label : undefined
    return word ?? shown(typeof value === 'string' ? value.split('\n')[0] : value, limits(pointer).unit)
  }
  const { differences, both } = data
  if (differences.length === 0) return <p className="quiet">No value differs from {before}.</p>
  return (
    <ul className="revision-changes" aria-label={`What ${letter} changed`}>
      {differences.slice(0, most).map(({ path, order, mine, theirs }) => (
        <li key={`${path.join('/')}${order ? '#' : ''}`}>
          {order ? 'order of ' : ''}
          {nameOf(path, both, limits)}
          {!order && (
            <span className="mono">
              : {said(path, mine)} → {said(path, theirs)}
            </span>
          )}
        </li>
      ))}
      {differences.length > most && <li className="quiet">and {differences.length - most} more</li>}
    </ul>
  )
}
