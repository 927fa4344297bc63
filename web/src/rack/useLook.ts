import { useSearchParams } from 'react-router'
import { orders, type Order } from './order'

/** What of the rack is looked at; it stands in the address, so that going back and sending a link find it again. */
export function useLook() {
  const [params, setParams] = useSearchParams()
  const by = params.get('by') ?? 'name'
  return {
    search: params.get('find') ?? '',
    order: (by in orders ? by : 'name') as Order,
    goes: params.get('with') ?? '',
    away: params.has('away'),
    makers: params.has('makers'),
    look: (next: Partial<Record<'find' | 'by' | 'with' | 'away' | 'makers', string>>) =>
      setParams(
        (before) => {
          const after = new URLSearchParams(before)
          for (const [name, value] of Object.entries(next))
            if (value) after.set(name, value)
            else after.delete(name)
          return after
        },
        { replace: true, preventScrollReset: true },
      ),
  }
}
