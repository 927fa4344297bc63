import { lazy, Suspense } from 'react'
import { ErrorBoundary } from 'react-error-boundary'
import { Route, Routes, useLocation } from 'react-router'
import { sentenceOf } from '../api/client'
import { DropAnywhere } from './DropAnywhere'
import { Rack } from '../rack/Rack'
import { Shell } from '../shell/Shell'
import { Waiting } from '../shell/Waiting'

const CardPage = lazy(() => import('./CardPage'))
const PatternPage = lazy(() => import('../rack/PatternPage'))
const TrialPage = lazy(() => import('../trial/TrialPage'))
const FilamentPage = lazy(() => import('../stock/FilamentPage'))
const RecipePage = lazy(() => import('../stock/RecipePage'))
const StockPage = lazy(() => import('../stock/StockPage'))
const StockRedline = lazy(() => import('../redline/StockRedline'))
const HandbookPage = lazy(() => import('../handbook/HandbookPage'))
const TakeInPage = lazy(() => import('../take-in/TakeInPage'))
const SourcesPage = lazy(() => import('../sources/SourcesPage'))
const BinPage = lazy(() => import('../bin-page/BinPage'))
const DryRunPage = lazy(() => import('../dry-run/DryRunPage'))

/** What stands at which address. */
export function Pages() {
  const { pathname } = useLocation()
  return (
    <ErrorBoundary
      resetKeys={[pathname]}
      fallbackRender={({ error, resetErrorBoundary }) => (
        <Shell trail={[]} title="Something went wrong">
          <div className="nothing" role="alert">
            <p className="trouble">{sentenceOf(error)}</p>
            <p>
              What you typed is kept.{' '}
              <button className="link" onClick={resetErrorBoundary}>
                Try again
              </button>
            </p>
          </div>
        </Shell>
      )}
    >
      <DropAnywhere />
      <Suspense fallback={<Waiting trail={[{ name: 'Rack', to: '/' }]} title="…" waitsFor={['the page']} />}>
        <Routes>
          <Route path="/" element={<Rack />} />
          <Route path="/cards/:id/*" element={<CardPage />} />
          <Route path="/patterns/:id" element={<PatternPage />} />
          <Route path="/handbook/:chapter?" element={<HandbookPage />} />
          <Route path="/take-in" element={<TakeInPage />} />
          <Route path="/pattern-sources" element={<SourcesPage />} />
          <Route path="/bin" element={<BinPage />} />
          <Route path="/stock" element={<StockPage />} />
          <Route path="/filaments/:id/redline" element={<StockRedline kind="filaments" />} />
          <Route path="/recipes/:id/redline" element={<StockRedline kind="recipes" />} />
          <Route path="/filaments/:id" element={<FilamentPage />} />
          <Route path="/recipes/:id" element={<RecipePage />} />
          <Route path="/trials/:id" element={<TrialPage />} />
          <Route path="/trials/:id/run" element={<DryRunPage />} />
          <Route
            path="*"
            element={
              <Shell trail={[]} title="Not there">
                <p className="nothing">There is nothing at this address. It may have been deleted.</p>
              </Shell>
            }
          />
        </Routes>
      </Suspense>
    </ErrorBoundary>
  )
}
