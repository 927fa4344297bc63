import { useMemo, useState } from 'react'
import { Link, NavLink, Route, Routes, useParams } from 'react-router'
import type { StoreApi } from 'zustand'
import { sentenceOf, type Card } from '../api/client'
import { Pane } from '../shell/Pane'
import { Shell } from '../shell/Shell'
import { Waiting } from '../shell/Waiting'
import { DraftNotices } from '../open-document/DraftNotices'
import { SaveNote } from '../open-document/SaveNote'
import type { DocumentState } from '../open-document/documentStore'
import { settingsOf } from '../open-document/description'
import { fieldAt, limitsOf, useSchemaOf } from '../open-document/schema'
import { useDocumentState, useDocumentStore } from '../open-document/useDocument'
import { useUndoKeys } from '../open-document/useUndoKeys'
import { AxesFollow } from '../sheet/AxesFollow'
import { CardContext } from '../open-card/CardContext'
import { CardSheet } from '../sheet/CardSheet'
import { GaugesTab } from '../gauges/GaugesTab'
import { HistoryTab } from '../history/HistoryTab'
import { LineTab } from '../line/LineTab'
import { HeadTab } from '../head/HeadTab'
import { MotionTab } from '../motion/MotionTab'
import { RedlineTab } from '../redline/RedlineTab'
import { ReachTab } from '../reach/ReachTab'
import { RoutinesTab } from '../routines/RoutinesTab'
import { MeasureUpTab } from '../measure-up/MeasureUpTab'
import { factGroups } from '../open-card/facts'
import { TrialsTab } from '../trial/TrialsTab'
import { choicesOf } from '../open-card/words'
import '../open-card/card.css'

/** A card: its sheet, its routines, its trials. */
export default function CardPage() {
  const { id } = useParams()
  const { data: store, error } = useDocumentStore('cards', id)
  if (error)
    return (
      <Shell trail={[{ name: 'Rack', to: '/' }]} title="Card">
        <p className="nothing" role="alert">
          {sentenceOf(error)}
        </p>
      </Shell>
    )
  return store ? (
    <OpenCardPage key={id} store={store} />
  ) : (
    <Waiting trail={[{ name: 'Rack', to: '/' }]} title="Card" waitsFor={['the card']} />
  )
}

function OpenCardPage({ store }: { store: StoreApi<DocumentState<Card>> }) {
  const state = useDocumentState('cards', store)
  const schema = useSchemaOf('card')
  const described = useMemo(
    () => ({
      limits: (pointer: string) => limitsOf(fieldAt(schema, pointer)),
      choices: (pointer: string) => choicesOf(fieldAt(schema, pointer)?.['x-words']),
      facts: factGroups(settingsOf(schema)),
    }),
    [schema],
  )
  const [lit, light] = useState<string>()
  useUndoKeys(state.undo, state.redo)
  const open = useMemo(() => ({ ...state, ...described, lit, light }), [state, described, lit])
  const home = `/cards/${state.id}`
  return (
    <CardContext value={open}>
      <Shell
        trail={[{ name: 'Rack', to: '/' }]}
        title={state.document.name || 'Card without a name'}
        state={<SaveNote state={state} />}
        notices={<DraftNotices kind="cards" state={state} />}
      >
        <div className="card-page">
          <nav className="tabs" aria-label="Parts of this card">
            <NavLink to={home} end>
              Sheet
            </NavLink>
            <NavLink to={`${home}/measure-up`}>Measure up</NavLink>
            <NavLink to={`${home}/head`}>Head</NavLink>
            <NavLink to={`${home}/reach`}>{(state.document.modes?.length ?? 0) > 0 ? 'Reach and modes' : 'Reach'}</NavLink>
            <NavLink to={`${home}/motion`}>Motion and heat</NavLink>
            <NavLink to={`${home}/routines`}>Routines</NavLink>
            <NavLink to={`${home}/gauges`}>Gauge pieces</NavLink>
            <NavLink to={`${home}/trials`}>Trials</NavLink>
            <NavLink to={`${home}/line`}>Line</NavLink>
            <NavLink to={`${home}/history`}>Revisions and prints</NavLink>
            <NavLink to={`${home}/redline`}>Redline</NavLink>
          </nav>
          <AxesFollow />
          <Pane name="page">
            <Routes>
              <Route index element={<CardSheet />} />
              <Route path="measure-up/*" element={<MeasureUpTab />} />
              <Route path="head" element={<HeadTab />} />
              <Route path="reach" element={<ReachTab />} />
              <Route path="motion" element={<MotionTab />} />
              <Route path="routines" element={<RoutinesTab />} />
              <Route path="gauges" element={<GaugesTab />} />
              <Route path="trials" element={<TrialsTab />} />
              <Route path="line" element={<LineTab />} />
              <Route path="history" element={<HistoryTab />} />
              <Route path="redline" element={<RedlineTab />} />
              <Route
                path="*"
                element={
                  <main className="nothing" role="alert">
                    <p>
                      This card has no such page. <Link to={home}>To its sheet</Link>
                    </p>
                  </main>
                }
              />
            </Routes>
          </Pane>
        </div>
      </Shell>
    </CardContext>
  )
}
