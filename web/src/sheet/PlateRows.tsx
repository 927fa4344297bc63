import { useSnackbar } from 'notistack'
import { useState } from 'react'
import { send } from '../api/send'
import { answerOf, sentenceOf } from '../api/client'
import { putMesh } from '../api/putMesh'
import { useCard } from '../open-card/CardContext'
import { OutlineDialog } from '../open-card/OutlineDialog'
import { SourceMark } from '../open-card/SourceMark'

/** The corners of a bed of any outline, and the picture or mesh of the plate. */
export function PlateRows() {
  const { document: card, set } = useCard()
  const [corners, setCorners] = useState(false)
  const { enqueueSnackbar } = useSnackbar()
  const bed = card.envelope?.bed
  const plate = card.envelope?.plate
  const keep = async (file: File) => {
    try {
      if (/\.stl$/i.test(file.name)) set('/envelope/plate', { kind: 'mesh', file: (await putMesh(file))[0]!.hash, name: file.name })
      else {
        const answer = await send('/api/pictures', { method: 'POST', body: file })
        const { hash } = await answerOf<{ hash: string }>(answer)
        set('/envelope/plate', { kind: 'picture', file: hash, name: file.name })
      }
    } catch (failure) {
      enqueueSnackbar(`${file.name}: ${sentenceOf(failure)}`, { variant: 'error' })
    }
  }
  return (
    <>
      {bed?.shape === 'polygon' && (
        <div className="fact" data-pointer="/envelope/bed/points">
          <span className="letter">A</span>
          <span className="label">outline</span>
          <span className="keep-out-count">
            <span className="mono">{bed.points.length} corners</span>
            <button className="link" onClick={() => setCorners(true)}>
              edit
            </button>
          </span>
          <SourceMark pointer="/envelope/bed/points" />
          <span />
        </div>
      )}
      <div className="fact" data-pointer="/envelope/plate">
        <span className="letter" />
        <span className="label">picture of it</span>
        <span className="keep-out-count">
          <span className="quiet clipped" title={plate?.name ?? undefined}>
            {plate ? (plate.name ?? plate.kind) : 'none'}
          </span>
          {plate ? (
            <button className="link" onClick={() => set('/envelope/plate', undefined)}>
              remove
            </button>
          ) : (
            <label className="link">
              add
              <input
                type="file"
                accept=".png,.jpg,.jpeg,.stl"
                hidden
                aria-label="picture or mesh of the plate"
                onChange={(event) => event.target.files?.[0] && void keep(event.target.files[0])}
              />
            </label>
          )}
        </span>
        <span />
        <span />
      </div>
      {corners && bed?.shape === 'polygon' && (
        <OutlineDialog
          title="The bed's outline"
          points={bed.points}
          onClose={(points) => {
            setCorners(false)
            if (points) set('/envelope/bed/points', points)
          }}
        />
      )}
    </>
  )
}
