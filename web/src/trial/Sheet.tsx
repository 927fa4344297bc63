import { lazy, Suspense, useEffect } from 'react'
import { Pane } from '../shell/Pane'
import { inField } from '../shell/inField'
import { Bed } from './Bed'
import { drawnWith } from '../pictorial/drawnWith'
import { fetchSpace } from './fetchSpace'
import { PointingBar } from './PointingBar'
import { DrawnBy } from './DrawnBy'
import { sheetViews } from './sheetViews'
import { useTrial } from './TrialContext'
import './sheet.css'

const SpaceOfTrial = lazy(fetchSpace)

/** The sheet: plan, elevation and pictorial view of one moment; each can fill it. */
export function Sheet() {
  const { sheetView, fillWith, inSpace, drawInSpace, layers } = useTrial('sheetView', 'fillWith', 'inSpace', 'drawInSpace', 'layers')
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (inField(event) || event.ctrlKey || event.metaKey || event.altKey) return
      const wanted = sheetViews[Number(event.key)]
      if (wanted && event.key !== '0') fillWith(wanted === sheetView ? 'all' : wanted)
      else if (event.key === 'Escape') fillWith('all')
    }
    window.addEventListener('keydown', onKey)
    return () => window.removeEventListener('keydown', onKey)
  }, [sheetView, fillWith])
  return (
    <div className={`trial-sheet fills-${sheetView}`}>
      {sheetView !== 'space' && (
        <Pane name="bed">
          <Bed />
        </Pane>
      )}
      {(sheetView === 'all' || sheetView === 'space') && (
        <div className="pictorial-pane">
          <div className="head-line between">
            <h2 className="caps">Pictorial</h2>
            <span className="head-links">
              {layers.length > 0 && (
                <button className="link quiet" onClick={() => drawInSpace(inSpace === 'parts' ? 'lines' : 'parts')}>
                  {inSpace === 'parts' ? 'as lines' : 'as parts'}
                </button>
              )}
              <button className="link quiet" onClick={() => fillWith(sheetView === 'space' ? 'all' : 'space')}>
                {sheetView === 'space' ? 'all views · Esc' : 'enlarge · 3'}
              </button>
            </span>
          </div>
          <Pane name="pictorial view">
            {drawnWith() ? (
              <Suspense fallback={<p className="quiet">The pictorial view is being fetched …</p>}>
                <SpaceOfTrial />
              </Suspense>
            ) : (
              <p className="quiet">This browser does not draw in space (WebGL 2 is off or missing): plan and elevation show the same.</p>
            )}
          </Pane>
          <PointingBar />
          <DrawnBy />
        </div>
      )}
    </div>
  )
}
