import type { ReactNode } from 'react'
import { ErrorBoundary } from 'react-error-boundary'
import { useLocation } from 'react-router'

/** A part of a page that may fail by itself: the rest of the page goes on. */
export function Pane({ name, children }: { name: string; children: ReactNode }) {
  const { pathname } = useLocation()
  return (
    <ErrorBoundary
      resetKeys={[pathname]}
      fallbackRender={({ error, resetErrorBoundary }) => (
        <section className="nothing" role="alert" aria-label={name}>
          <p className="trouble">
            The {name} cannot be shown: {error instanceof Error ? error.message : String(error)}
          </p>
          <p>
            What you typed is kept.{' '}
            <button className="link" onClick={resetErrorBoundary}>
              Try again
            </button>
          </p>
        </section>
      )}
    >
      {children}
    </ErrorBoundary>
  )
}
