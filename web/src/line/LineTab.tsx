import { useQuery } from '@tanstack/react-query'
import { useSnackbar } from 'notistack'
import { useState } from 'react'
import { Link, useSearchParams } from 'react-router'
import { api, dataOf, sentenceOf, type LineJob, type LineStatus } from '../api/client'
import { useCard } from '../open-card/CardContext'
import { known } from '../open-card/sources'
import { withValue } from '../open-document/pointer'
import { dayOf, plain, timeOfDay } from '../units/format'
import { NozzleOnBed } from './NozzleOnBed'
import { StandInPanel } from './StandInPanel'
import { TemperatureTrail } from './TemperatureTrail'
import { useLineStatus } from './useLine'
import './line.css'

/** The connection to the printer: test it, fetch from it, send a trial's program, watch. */
export function LineTab() {
  const { id, document: card, set, change } = useCard()
  const status = useLineStatus(id)
  const { enqueueSnackbar } = useSnackbar()
  const [busy, setBusy] = useState('')
  const [tested, setTested] = useState<{ firmware: string; mismatches: string[] }>()
  const [failure, setFailure] = useState('')
  const path = { params: { path: { id } } }

  async function act(what: string, does: () => Promise<void>) {
    setBusy(what)
    setFailure('')
    try {
      await does()
    } catch (problem) {
      setFailure(sentenceOf(problem))
    } finally {
      setBusy('')
    }
  }
  const test = () => act('test', async () => setTested(dataOf(await api.POST('/api/cards/{id}/line/test', path))))
  const settings = () =>
    act('settings', async () => {
      const { text } = dataOf(await api.POST('/api/cards/{id}/line/settings', path))
      const report = dataOf(await api.POST('/api/settings-report', { body: { card, report: text } }))
      const differing = report.facts.filter((fact) => fact.differs)
      change((before) =>
        differing.reduce(
          (after, { pointer, new: value }) => known(withValue(after, pointer, value), [pointer], 'reported-by-firmware'),
          before,
        ),
      )
      enqueueSnackbar(
        differing.length === 0
          ? 'The printer’s settings are those of the card.'
          : `${differing.length} facts taken over; undo takes them back.`,
      )
    })
  const macros = () =>
    act('macros', async () => {
      const { text } = dataOf(await api.POST('/api/cards/{id}/line/macros', path))
      set('/firmware/macros', text)
      enqueueSnackbar('The macro file is on the card.')
    })
  const standIn = status?.firmware?.includes('stand-in of Mill Card')
  return (
    <main className="line-tab">
      <section className="line-side">
        <h2 className="caps">Where it answers</h2>
        <label>
          host
          <input
            className="plain-field"
            value={card.line?.host ?? ''}
            placeholder="127.0.0.1"
            onChange={(event) =>
              set('/line', event.target.value ? { ...card.line, host: event.target.value, port: card.line?.port ?? 7421 } : undefined)
            }
          />
        </label>
        <label>
          port
          <input
            className="plain-field"
            type="number"
            min={1}
            max={65535}
            value={card.line?.port ?? ''}
            disabled={!card.line || card.line.host === 'stand-in'}
            onChange={(event) => set('/line/port', Math.round(Number(event.target.value)) || 1)}
          />
        </label>
        <label>
          serial speed behind it, baud
          <input
            className="plain-field"
            type="number"
            value={card.line?.baud ?? ''}
            placeholder="not serial"
            disabled={!card.line}
            onChange={(event) => set('/line/baud', event.target.value ? Math.round(Number(event.target.value)) : undefined)}
          />
        </label>
        <p className="quiet">
          Lines go to this machine itself, and to hosts that the server’s configuration lists. The host{' '}
          <span className="mono">stand-in</span> is the simulated printer that comes with Mill Card, whatever its port.
        </p>
        <div className="keys">
          <button className="key" disabled={!card.line || Boolean(busy)} onClick={() => void test()}>
            Test the line
          </button>
          <button className="key" disabled={!card.line || Boolean(busy)} onClick={() => void settings()}>
            Fetch the settings report
          </button>
          <button className="key" disabled={!card.line || Boolean(busy)} onClick={() => void macros()}>
            Fetch the macro file
          </button>
        </div>
        {(failure || status?.problem) && (
          <p className="failure" role="alert">
            {failure || status?.problem}
          </p>
        )}
        {tested && (
          <div className="tested" data-tested>
            <p>{tested.firmware}</p>
            {tested.mismatches.length === 0 ? (
              <p className="fine">It matches the card.</p>
            ) : (
              <ul>
                {tested.mismatches.map((sentence) => (
                  <li key={sentence}>{sentence}</li>
                ))}
              </ul>
            )}
          </div>
        )}
        {standIn && <StandInPanel id={id} onFailure={setFailure} />}
      </section>
      <section className="line-middle">
        <Readings status={status} />
        <TemperatureTrail now={status?.temperatures ?? undefined} />
        <JobPanel id={id} status={status} ready={Boolean(card.line)} onFailure={setFailure} />
        <NozzleOnBed card={card} at={status?.position} />
      </section>
      <Talk id={id} status={status} ready={Boolean(card.line)} onFailure={setFailure} />
    </main>
  )
}

function Readings({ status }: { status: LineStatus | undefined }) {
  const heat = status?.temperatures
  const at = status?.position
  const degrees = (now: number | null | undefined, target: number | null | undefined) =>
    now === null || now === undefined ? '—' : `${plain(now, 1)}${target ? ` → ${plain(target, 0)}` : ''} °C`
  return (
    <dl className="readings" aria-live="off">
      <div>
        <dt>printer</dt>
        <dd data-connected={Boolean(status?.connected)}>{status?.connected ? 'answers' : 'not connected'}</dd>
      </div>
      <div>
        <dt>nozzle</dt>
        <dd>{degrees(heat?.nozzle, heat?.nozzleTarget)}</dd>
      </div>
      <div>
        <dt>bed</dt>
        <dd>{degrees(heat?.bed, heat?.bedTarget)}</dd>
      </div>
      <div>
        <dt>position</dt>
        <dd>{at ? `X ${plain(at.x, 1)} Y ${plain(at.y, 1)} Z ${plain(at.z, 2)}` : '—'}</dd>
      </div>
    </dl>
  )
}

interface PanelProps {
  id: string
  status: LineStatus | undefined
  ready: boolean
  onFailure: (sentence: string) => void
}

function JobPanel({ id, status, ready, onFailure }: PanelProps) {
  const [asked] = useSearchParams()
  const [trial, setTrial] = useState(asked.get('trial') ?? '')
  const [how, setHow] = useState<'lines' | 'file'>('lines')
  const { data: trials } = useQuery({
    queryKey: ['list', 'trials', id],
    queryFn: async () => dataOf(await api.GET('/api/trials', { params: { query: { card: id } } })),
  })
  const job = status?.job
  const running =
    job?.state === 'sending' ||
    job?.state === 'silent' ||
    job?.state === 'pausing' ||
    job?.state === 'paused' ||
    (job?.onPrinter && job.onPrinter !== 'done')
  const paused = job?.state === 'paused' || job?.state === 'pausing' || job?.onPrinter === 'paused'
  const last = useLastJob(id, job)
  const path = { params: { path: { id } } }
  async function act(does: () => Promise<unknown>) {
    onFailure('')
    try {
      await does()
    } catch (problem) {
      onFailure(sentenceOf(problem))
    }
  }
  return (
    <section className="job" aria-label="Job">
      <h2 className="caps">Job</h2>
      {!running && (
        <p>
          <select className="plain-field" aria-label="trial" value={trial} onChange={(event) => setTrial(event.target.value)}>
            <option value="">choose a trial</option>
            {(trials ?? []).map((one) => (
              <option key={one.id} value={one.id}>
                {one.name || 'trial without a name'}
              </option>
            ))}
          </select>{' '}
          <select className="plain-field" aria-label="how" value={how} onChange={(event) => setHow(event.target.value as 'lines' | 'file')}>
            <option value="lines">line by line</option>
            <option value="file">as a file, then started there</option>
          </select>{' '}
          <button
            className="key"
            disabled={!ready || !trial}
            onClick={() => void act(async () => dataOf(await api.POST('/api/cards/{id}/line/print', { ...path, body: { trial, how } })))}
          >
            Send
          </button>
        </p>
      )}
      {!running && (trials ?? []).length === 0 && (
        <p className="quiet">
          There is no trial on this card yet. <Link to={`/cards/${id}/trials`}>Open one</Link>.
        </p>
      )}
      {!job && last && (
        <div className={`job-now ${last.state}`} data-last-job={last.state}>
          <p>
            <strong>{last.name}</strong>, last job, {dayOf(last.beganAt)} {timeOfDay(last.beganAt)}:{' '}
            {last.state === 'done' ? 'all sent' : `${last.state} at line ${last.line}`}
          </p>
          {last.message && <p className={last.state === 'done' ? 'quiet' : 'failure'}>{last.message}</p>}
          <Heaters are={last.heaters ?? undefined} />
        </div>
      )}
      {job && (
        <div className={`job-now ${job.state}`} data-job={job.state}>
          <p>
            <strong>{job.name}</strong>, {job.how === 'lines' ? 'line by line' : 'as a file'}, since {timeOfDay(job.at)}:{' '}
            {job.onPrinter ? `handed over; the printer: ${job.onPrinter}` : words[job.state]}
          </p>
          <progress value={job.taken} max={job.count} aria-label="Progress" />
          <p className="mono">
            {job.taken} of {job.count} commands, line {job.line}
          </p>
          {job.message && <p className={job.state === 'stopped' ? 'failure' : 'quiet'}>{job.message}</p>}
          <Heaters are={job.heaters} />
          {job.errorLine && (
            <p className="error-line mono">
              <span>{job.errorLine}</span> {job.errorText}
            </p>
          )}
          {running && (
            <div className="keys">
              <button
                className="key"
                onClick={() =>
                  void act(async () =>
                    dataOf(await (paused ? api.POST('/api/cards/{id}/line/resume', path) : api.POST('/api/cards/{id}/line/pause', path))),
                  )
                }
              >
                {paused ? 'Resume' : 'Pause'}
              </button>
              <button className="key" onClick={() => void act(async () => dataOf(await api.POST('/api/cards/{id}/line/cancel', path)))}>
                Cancel, heaters off
              </button>
              <button
                className="key"
                title="M112: whatever the printer does ends at once; it has to be switched on anew"
                onClick={() => void act(async () => dataOf(await api.POST('/api/cards/{id}/line/emergency', path)))}
              >
                Emergency stop
              </button>
            </div>
          )}
        </div>
      )}
    </section>
  )
}

const words = {
  sending: 'going out',
  silent: 'no answer from the printer; the line that is out goes out again',
  pausing: 'pausing, behind the line that is out',
  paused: 'paused',
  done: 'all sent',
  stopped: 'stopped',
}

const heaterWords = {
  'as-programmed': undefined,
  'switching-off': 'The heaters are being switched off …',
  off: 'The heaters are off: the printer itself reports no target.',
  'told-not-confirmed': 'The printer was told to switch its heaters off and has not confirmed it. Look at it.',
  'not-known': 'Nobody could tell the printer to switch its heaters off: they may be hot. Look at it.',
}

function Heaters({ are = 'as-programmed' }: { are?: LineJob['heaters'] }) {
  const sentence = heaterWords[are]
  return sentence ? (
    <p className={are === 'off' ? 'fine' : 'failure'} data-heaters={are} role="status">
      {sentence}
    </p>
  ) : null
}

/** The last job that the database knows, for a page that is opened after a restart. */
function useLastJob(id: string, job: LineStatus['job']) {
  const { data } = useQuery({
    queryKey: ['jobs', id, job?.state],
    queryFn: async () => dataOf(await api.GET('/api/cards/{id}/line/jobs', { params: { path: { id } } })),
  })
  return data?.[0]
}

function Talk({ id, status, ready, onFailure }: PanelProps) {
  const [command, setCommand] = useState('')
  return (
    <section className="talk" aria-label="Talk">
      <h2 className="caps">Talk</h2>
      <ol>
        {(status?.talk ?? []).map((one, i) => (
          <li key={i} className={one.out ? 'out' : ''}>
            {one.text}
          </li>
        ))}
      </ol>
      <form
        onSubmit={(event) => {
          event.preventDefault()
          onFailure('')
          void api
            .POST('/api/cards/{id}/line/command', { params: { path: { id } }, body: { command } })
            .then(dataOf)
            .then(() => setCommand(''))
            .catch((problem: unknown) => onFailure(sentenceOf(problem)))
        }}
      >
        <input
          className="plain-field mono"
          aria-label="command"
          placeholder="one command, such as M105"
          value={command}
          maxLength={200}
          disabled={!ready}
          onChange={(event) => setCommand(event.target.value)}
        />
      </form>
    </section>
  )
}
