import { Menu, MenuItem } from '@mui/material'
import { fellowsOf } from './together'
import { useTrial } from './TrialContext'

export interface MenuAt {
  left: number
  top: number
  /** The part under the pointer; undefined over free ground. */
  part: number | undefined
}

/** What can be done to what is selected, at the pointer. */
export function PartMenu({ at, onClose }: { at: MenuAt; onClose: () => void }) {
  const { trial, selected, hands, arranging } = useTrial('trial', 'selected', 'hands', 'arranging')
  const parts = trial.document.parts ?? []
  const meant = at.part === undefined || selected.includes(at.part) ? selected : [at.part]
  const [one] = meant
  const single = meant.length === 1 && one !== undefined ? one : undefined
  const together = one !== undefined && fellowsOf(parts, one).length > 1
  const items: { does: string; keys?: string; on: boolean; act: () => void }[] = [
    { does: 'copy', keys: 'Ctrl C', on: meant.length > 0, act: () => hands.copy(meant) },
    { does: 'paste', keys: 'Ctrl V', on: true, act: () => void hands.paste() },
    { does: 'remove', keys: 'Del', on: meant.length > 0, act: () => hands.remove(meant) },
    { does: 'select all', keys: 'Ctrl A', on: parts.length > 0, act: hands.selectAll },
    { does: 'arrange all', keys: 'g', on: parts.length > 0, act: () => void arranging.arrange() },
    { does: 'fill the bed', on: single !== undefined && !together, act: () => void arranging.fill(single!) },
    { does: 'mirror', keys: 'm', on: meant.length > 0, act: () => hands.mirror(meant) },
    { does: 'put together', on: meant.length > 1, act: () => hands.putTogether(meant) },
    { does: 'take apart', on: together, act: () => hands.takeApart(one!) },
    { does: 'split into bodies', on: single !== undefined, act: () => void hands.split(single!) },
    { does: 'join to one part', on: meant.length > 1 || together, act: () => void hands.join(meant) },
  ]
  return (
    <Menu open onClose={onClose} anchorReference="anchorPosition" anchorPosition={at}>
      {items
        .filter(({ on }) => on)
        .map(({ does, keys, act }) => (
          <MenuItem
            key={does}
            onClick={() => {
              act()
              onClose()
            }}
          >
            <span className="menu-row">
              {does} <span className="quiet mono">{keys}</span>
            </span>
          </MenuItem>
        ))}
    </Menu>
  )
}
