import { useNavigate, useSearchParams, type NavigateOptions } from 'react-router'

/**
 * What stands behind the address's question mark, and a way to change some of it: an empty value goes. A change adds to
 * what stands there by then, which the page may not have drawn yet.
 */
export function useAddress() {
  const [params] = useSearchParams()
  const navigate = useNavigate()
  const change = (next: Record<string, string>, options?: NavigateOptions) => {
    const after = new URLSearchParams(window.location.search)
    for (const [name, value] of Object.entries(next))
      if (value) after.set(name, value)
      else after.delete(name)
    void navigate({ search: after.toString() }, { replace: true, preventScrollReset: true, ...options })
  }
  return [params, change] as const
}
