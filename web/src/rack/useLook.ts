import { useAddress } from '../shell/useAddress'
import { orders, type Order } from './order'

/** What of the rack is looked at; it stands in the address, so that going back and sending a link find it again. */
export function useLook() {
  const [params, change] = useAddress()
  const by = params.get('by') ?? 'name'
  return {
    search: params.get('find') ?? '',
    order: (by in orders ? by : 'name') as Order,
    goes: params.get('with') ?? '',
    away: params.has('away'),
    makers: params.has('makers'),
    look: (next: Partial<Record<'find' | 'by' | 'with' | 'away' | 'makers', string>>) => change(next),
  }
}
