import { useSyncExternalStore } from 'react'

const current = () => (document.documentElement.getAttribute('data-scheme') === 'dark' ? 'dark' : 'light')
const subscribe = (told: () => void) => {
  const observer = new MutationObserver(told)
  observer.observe(document.documentElement, { attributeFilter: ['data-scheme'] })
  return () => observer.disconnect()
}

/** Paper or chalk, as the page is drawn now. */
export const useScheme = (): 'light' | 'dark' => useSyncExternalStore(subscribe, current)
