import { Menu, MenuItem } from '@mui/material'
import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { api, dataOf, type Card } from '../api/client'
import type { MomentName } from './moments'

interface PassageMenuProps {
  card: Card
  moment: MomentName
  onTake: (text: string) => void
}

/** Ready-made lines for this machine, those that belong to this routine first. */
export function PassageMenu({ card, moment, onTake }: PassageMenuProps) {
  const [anchor, setAnchor] = useState<HTMLElement>()
  const { data: passages } = useQuery({
    queryKey: ['passages', JSON.stringify({ ...card, routines: undefined })],
    enabled: Boolean(anchor),
    retry: false,
    queryFn: async () => dataOf(await api.POST('/api/routines/passages', { body: card })),
  })
  const sorted = [...(passages ?? [])].sort((a, b) => Number(b.moment === moment) - Number(a.moment === moment))
  return (
    <>
      <button className="link" aria-haspopup="menu" onClick={(event) => setAnchor(event.currentTarget)}>
        insert a passage
      </button>
      <Menu open={Boolean(anchor)} anchorEl={anchor} onClose={() => setAnchor(undefined)}>
        {sorted.length === 0 && <MenuItem disabled>The card is not complete yet.</MenuItem>}
        {sorted.map((passage) => (
          <MenuItem
            key={passage.id}
            data-passage={passage.id}
            onClick={() => {
              setAnchor(undefined)
              onTake(passage.text)
            }}
          >
            <span className="passage">
              <strong>{passage.title}</strong>
              <span className="quiet">{passage.about}</span>
            </span>
          </MenuItem>
        ))}
      </Menu>
    </>
  )
}
