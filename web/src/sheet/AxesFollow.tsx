import { Button } from '@mui/material'
import { useState } from 'react'
import { plain } from '../units/format'
import { followed, following } from './axesFollow'
import { useCard } from '../open-card/CardContext'

/** Where bed, origin or height were changed: whether the axes that covered them exactly are to follow. */
export function AxesFollow() {
  const { document: card, change } = useCard()
  const [before, setBefore] = useState(card)
  const axes = following(before, card)
  if (axes.length === 0) return null
  const way = ([from, to]: [number | undefined, number]) => (from === undefined ? `up to ${plain(to)}` : `${plain(from)} to ${plain(to)}`)
  return (
    <div className="axes-follow" role="status">
      <span>
        The axes covered the bed exactly and no longer do:{' '}
        {axes.map(({ axis, runs, would }) => `${axis} runs ${way(runs)}, and would run ${way(would)}`).join('; ')}.
      </span>
      <Button size="small" onClick={() => change((now) => followed(now, following(before, now)))}>
        Let {axes.length === 1 ? 'it' : 'them'} follow
      </Button>
      <Button size="small" onClick={() => setBefore(card)}>
        Leave as {axes.length === 1 ? 'it is' : 'they are'}
      </Button>
    </div>
  )
}
