import { useEffect } from 'react'
import { inField } from '../shell/inField'
import type { Hands } from './useHands'

/** Keys for selected parts, wherever the focus is but in a field: delete, copy, paste, select all, mirror. */
export function useHandKeys(hands: Hands, selected: readonly number[]) {
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (inField(event) || event.altKey) return
      const withControl = event.ctrlKey || event.metaKey
      const key = event.key.toLowerCase()
      if (!withControl && (event.key === 'Delete' || event.key === 'Backspace')) hands.remove(selected)
      else if (!withControl && key === 'm' && selected.length > 0) hands.mirror(selected)
      else if (withControl && key === 'a') hands.selectAll()
      else if (withControl && key === 'c' && selected.length > 0 && !getSelection()?.toString()) hands.copy(selected)
      else if (withControl && key === 'v') void hands.paste()
      else return
      event.preventDefault()
    }
    window.addEventListener('keydown', onKey)
    return () => window.removeEventListener('keydown', onKey)
  }, [hands, selected])
}
