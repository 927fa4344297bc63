import { HubConnectionBuilder, LogLevel } from '@microsoft/signalr'
import { useEffect, useState } from 'react'
import type { LineStatus } from '../api/client'

/** How a card's line stands, as it changes. */
export function useLineStatus(card: string): LineStatus | undefined {
  const [status, setStatus] = useState<LineStatus>()
  useEffect(() => {
    const hub = new HubConnectionBuilder().withUrl('/hubs/line').withAutomaticReconnect().configureLogging(LogLevel.None).build()
    const watch = async () => {
      const now = await hub.invoke<LineStatus | null>('Watch', card)
      if (now) setStatus(now)
    }
    hub.on('status', (next: LineStatus) => setStatus(next))
    hub.onreconnected(() => void watch())
    const started = hub.start().then(watch)
    // a page that is left before the connection stands closes it once it does
    return () => void started.catch(() => undefined).then(() => hub.stop())
  }, [card])
  return status
}
