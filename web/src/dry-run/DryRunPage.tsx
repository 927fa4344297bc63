import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useSnackbar } from 'notistack'
import { useRef } from 'react'
import { Link, useParams } from 'react-router'
import type { StoreApi } from 'zustand'
import { send } from '../api/send'
import { answerOf, sentenceOf, type Card, type StoredRun, type Trial } from '../api/client'
import { holdGcode } from '../api/limits'
import { runOf, takeRun } from '../api/storedRun'
import { Shell } from '../shell/Shell'
import { Waiting } from '../shell/Waiting'
import { useAddress } from '../shell/useAddress'
import type { DocumentState } from '../open-document/documentStore'
import { useDocumentState, useDocumentStore } from '../open-document/useDocument'
import { Findings } from '../findings/Findings'
import { byNozzle, duration, plain } from '../units/format'
import { HeatChart } from './HeatChart'
import { Lines } from './Lines'
import { PathOnBed } from './PathOnBed'
import { useLine } from '../api/useLines'
import './dry-run.css'

/** The dry run of a trial's program: every line with what it does and when, temperatures, path, findings. One cursor over all. */
export default function DryRunPage() {
  const { id = '' } = useParams()
  const { data: trial } = useDocumentStore('trials', id)
  const { data: card } = useDocumentStore('cards', trial?.getState().document.card)
  const { data: run, error } = useQuery(runOf(id))
  if (error)
    return (
      <Shell trail={[{ name: 'Rack', to: '/' }]} title="Dry run">
        <p className="nothing" role="alert">
          {sentenceOf(error)}
        </p>
      </Shell>
    )
  return trial && card && run !== undefined ? (
    <OpenDryRun trialStore={trial} cardStore={card} run={run ?? undefined} />
  ) : (
    <Waiting
      trail={[{ name: 'Rack', to: '/' }]}
      title="Dry run"
      waitsFor={[...(trial ? [] : ['the trial']), ...(card ? [] : ['its card']), ...(run === undefined ? ['its program'] : [])]}
    />
  )
}

interface OpenDryRunProps {
  trialStore: StoreApi<DocumentState<Trial>>
  cardStore: StoreApi<DocumentState<Card>>
  run: StoredRun | undefined
}

function OpenDryRun({ trialStore, cardStore, run }: OpenDryRunProps) {
  const trial = useDocumentState('trials', trialStore)
  const card = useDocumentState('cards', cardStore)
  const [params, change] = useAddress()
  const cursor = Math.min(Math.max(1, Number(params.get('line')) || 1), run?.result.lines ?? 1)
  const go = (line: number) => change({ line: String(line) })
  const line = useLine(trial.id, run, cursor)
  const bring = useBring(trial.id)
  const picker = useRef<HTMLInputElement>(null)
  const result = run?.result
  return (
    <Shell
      trail={[
        { name: 'Rack', to: '/' },
        { name: card.document.name || 'card', to: `/cards/${card.id}/trials` },
        { name: trial.document.name || 'trial', to: `/trials/${trial.id}` },
      ]}
      title="Dry run"
      state={
        result && (
          <span className="state">
            {[duration(result.seconds), `${plain(result.filament / 1000, 2)} m of filament`, byNozzle(result.byNozzle)]
              .filter(Boolean)
              .join(' · ')}
          </span>
        )
      }
      tools={
        <button className="key" onClick={() => picker.current?.click()}>
          bring a G-code file
        </button>
      }
    >
      <input
        ref={picker}
        type="file"
        accept=".gcode,.gco,.g,.nc,.txt"
        hidden
        data-bring-file
        onChange={(event) => {
          const [file] = event.target.files ?? []
          if (file) void bring(file)
          event.target.value = ''
        }}
      />
      <main
        className="dry-run"
        onDragOver={(event) => event.preventDefault()}
        onDrop={(event) => {
          event.preventDefault()
          const [file] = event.dataTransfer.files
          if (file) void bring(file)
        }}
      >
        {!run || !result ? (
          <p className="nothing">
            There is no program yet. <Link to={`/trials/${trial.id}`}>Slice the trial</Link>, or drop a G-code file here to see what it
            would do on {card.document.name || 'this machine'}.
          </p>
        ) : (
          <>
            <Lines key={run.at} id={trial.id} run={run} cursor={cursor} onGo={go} />
            <section className="dry-run-middle">
              <HeatChart id={trial.id} run={run} at={line?.start} />
              <PathOnBed card={card.document} line={line} />
            </section>
            <aside className="margin-column">
              <Findings
                findings={result.findings}
                placeOf={(finding) => (finding.line ? `line ${finding.line}` : undefined)}
                onGo={(finding) => finding.line && go(finding.line)}
                fine="Nothing is hit, every wait ends, and all heaters are off at the end."
              />
            </aside>
          </>
        )}
      </main>
    </Shell>
  )
}

/** Sends a program and shows its run; a refusal is said in a sentence, and the run that is shown stays. */
function useBring(id: string) {
  const client = useQueryClient()
  const { enqueueSnackbar } = useSnackbar()
  return async (file: File) => {
    try {
      await holdGcode(file)
      const answer = await send(`/api/trials/${id}/run/program?name=${encodeURIComponent(file.name)}`, {
        method: 'PUT',
        body: file,
        headers: { 'content-type': 'text/x.gcode' },
      })
      await takeRun(client, id, await answerOf<StoredRun>(answer))
    } catch (failure) {
      enqueueSnackbar(`${file.name}: ${sentenceOf(failure)}`, { variant: 'error', persist: true })
    }
  }
}
