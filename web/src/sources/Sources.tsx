import { useSnackbar } from 'notistack'
import { useState } from 'react'
import { api, dataOf, sentenceOf, type PatternSource } from '../api/client'
import { momentOf } from '../units/format'
import { SeverityMark } from '../findings/SeverityMark'

/** The sources that are here: where they come from, with what key, when they were looked at. */
export function Sources({ sources, onChanged }: { sources: readonly PatternSource[]; onChanged: () => Promise<unknown> }) {
  const { enqueueSnackbar } = useSnackbar()
  const [asked, ask] = useState<string>()
  const attempt = async (work: () => Promise<unknown>) => {
    try {
      await work()
    } catch (failure) {
      enqueueSnackbar(sentenceOf(failure), { variant: 'error' })
    }
    await onChanged()
  }
  const at = (id: string) => ({ params: { path: { id } } })
  return (
    <table className="list sources" aria-label="Sources">
      <thead>
        <tr>
          <th>Source</th>
          <th>patterns</th>
          <th>key</th>
          <th>looked at</th>
          <td />
        </tr>
      </thead>
      <tbody>
        {sources.map((one) => (
          <tr key={one.id} data-source={one.id}>
            <td>
              <strong>{one.name}</strong> <span className="quiet">number {one.number}</span>
              <div className="quiet">{one.about}</div>
              <div className="mono place">
                {one.isOwn ? 'comes with Mill Card' : one.place || 'was dropped; drop it again when there is a newer one'}
              </div>
              {one.trouble && (
                <div className="trouble">
                  <SeverityMark severity="caution" size={12} /> {one.trouble}
                </div>
              )}
            </td>
            <td className="mono">{one.patterns}</td>
            <td className="mono key-print">{one.key}</td>
            <td className="mono">{one.lookedAt ? momentOf(one.lookedAt) : ''}</td>
            <td>
              {one.place && (
                <button
                  className="link"
                  onClick={() => void attempt(async () => dataOf(await api.POST('/api/pattern-sources/{id}/look-again', at(one.id))))}
                >
                  look again
                </button>
              )}{' '}
              {!one.isOwn && asked !== one.id && (
                <button className="link quiet" onClick={() => ask(one.id)}>
                  forget
                </button>
              )}
              {asked === one.id && (
                <span role="group" aria-label={`Forget ${one.name}?`}>
                  Its key and patterns go; cards stay.{' '}
                  <button
                    className="link"
                    onClick={() => {
                      ask(undefined)
                      void attempt(async () => dataOf(await api.DELETE('/api/pattern-sources/{id}', at(one.id))))
                    }}
                  >
                    forget it
                  </button>{' '}
                  <button className="link quiet" onClick={() => ask(undefined)}>
                    leave it
                  </button>
                </span>
              )}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  )
}
