import { Button, Dialog, DialogActions, DialogContent, DialogTitle } from '@mui/material'
import { keepPreviousData, useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { api, dataOf, type Nozzle } from '../api/client'
import { useCard } from '../open-card/CardContext'
import { known } from '../open-card/sources'
import { valueAt, withValue, under } from '../open-document/pointer'
import { NumberField } from '../units/NumberField'

interface NozzleDialogProps {
  pointer: string
  nozzle: Nozzle
  onClose: () => void
}

/** Another nozzle: everything that follows from it is shown before it is taken. */
export function NozzleDialog({ pointer, nozzle, onClose }: NozzleDialogProps) {
  const { change, choices, limits } = useCard()
  const [next, setNext] = useState(nozzle)
  const { data } = useQuery({
    queryKey: ['nozzle-change', JSON.stringify([nozzle, next])],
    enabled: Boolean(nozzle.diameter && next.diameter),
    placeholderData: keepPreviousData,
    queryFn: async ({ signal }) => dataOf(await api.POST('/api/nozzle-change', { body: { before: nozzle, after: next }, signal })),
  })
  const take = () => {
    change((before) =>
      known(
        withValue(before, pointer, {
          ...(valueAt(before, pointer) as Nozzle),
          diameter: next.diameter,
          material: next.material,
          wear: next.wear,
          maxFlow: next.maxFlow,
        }),
        [under(pointer, 'diameter')],
        'rating-plate',
      ),
    )
    onClose()
  }
  const broken = data?.recipes.filter((recipe) => recipe.fitBefore && recipe.reasons.length > 0) ?? []
  const kept = data?.recipes.filter((recipe) => recipe.reasons.length === 0) ?? []
  return (
    <Dialog open onClose={onClose} maxWidth="md">
      <DialogTitle>Another nozzle for {nozzle.id}</DialogTitle>
      <DialogContent>
        <div className="nozzle-dialog">
          <div className="keep-out-fields bare">
            <label className="small-field">
              new bore
              <NumberField
                value={next.diameter}
                label="new bore"
                limits={limits(under(pointer, 'diameter'))}
                required
                onChange={(diameter) => setNext({ ...next, diameter })}
              />
            </label>
            <label className="small-field">
              material
              <select
                className="plain-field"
                aria-label="new material"
                value={next.material ?? ''}
                onChange={(event) =>
                  setNext({ ...next, material: (event.target.value || undefined) as Nozzle['material'], wear: undefined })
                }
              >
                <option value="">not said</option>
                {choices('/head/nozzles/0/material').map((m) => (
                  <option key={m.value} value={m.value}>
                    {m.label}
                  </option>
                ))}
              </select>
            </label>
            {next.material === 'other' && (
              <label className="small-field">
                stands wear
                <select
                  className="plain-field"
                  aria-label="new wear rating"
                  value={next.wear ?? ''}
                  onChange={(event) => setNext({ ...next, wear: (event.target.value || undefined) as Nozzle['wear'] })}
                >
                  <option value="">not said</option>
                  {choices('/head/nozzles/0/wear').map((w) => (
                    <option key={w.value} value={w.value}>
                      {w.label}
                    </option>
                  ))}
                </select>
              </label>
            )}
            <label className="small-field">
              melts up to
              <NumberField
                value={next.maxFlow}
                label="new melting limit"
                limits={limits(under(pointer, 'maxFlow'))}
                onChange={(maxFlow) => setNext({ ...next, maxFlow })}
              />
            </label>
          </div>
          {data && (
            <table className="list">
              <thead>
                <tr>
                  <th>What follows</th>
                  <th>now</th>
                  <th>then</th>
                </tr>
              </thead>
              <tbody>
                {data.figures.map((figure) => (
                  <tr key={figure.name}>
                    <td>{figure.name}</td>
                    <td className="mono quiet">{figure.before}</td>
                    <td className={figure.before === figure.after ? 'mono quiet' : 'mono'}>{figure.after}</td>
                  </tr>
                ))}
              </tbody>
            </table>
          )}
          {broken.length > 0 && (
            <section aria-label="Recipes that no longer fit">
              <h3>Recipes that no longer fit</h3>
              {broken.map((recipe) => (
                <p key={recipe.name}>
                  <strong>{recipe.name}.</strong> {recipe.reasons.join(' ')}
                </p>
              ))}
            </section>
          )}
          {kept.length > 0 && <p className="quiet">These go on fitting: {kept.map((recipe) => recipe.name).join(', ')}.</p>}
        </div>
      </DialogContent>
      <DialogActions>
        <Button onClick={onClose}>Leave it as it is</Button>
        <Button variant="contained" disabled={!next.diameter} onClick={take}>
          Take the new nozzle
        </Button>
      </DialogActions>
    </Dialog>
  )
}
