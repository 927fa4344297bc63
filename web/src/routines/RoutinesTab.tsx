import { Menu, MenuItem } from '@mui/material'
import { lazy, Suspense, useMemo, useState } from 'react'
import { sentenceOf, type Finding } from '../api/client'
import { useCard } from '../open-card/CardContext'
import { valueAt, under } from '../open-document/pointer'
import { SeriesChart } from '../drawing/SeriesChart'
import { Findings } from '../findings/Findings'
import { unlookedBy, useFindings } from '../findings/useFindings'
import { useRemedy } from '../open-card/useRemedy'
import { AboutLine } from './AboutLine'
import { CarryDialog } from './CarryDialog'
import { withEdits } from '../findings/edits'
import { EffectColumn } from './EffectColumn'
import { useHanded } from '../exchange/dropped'
import { LearnDialog } from './LearnDialog'
import { MacroDialog } from './MacroDialog'
import { MacroSteps } from './MacroSteps'
import { MomentPath } from './MomentPath'
import { moments, type MomentName } from './moments'
import { MomentStrip } from './MomentStrip'
import { PassageMenu } from './PassageMenu'
import { useAddress } from '../shell/useAddress'
import { useFlavours, useRoutineNames } from '../routine-editor/useRoutineWords'
import { useMacros, useRoutinePreview } from './useRoutines'
import './routines.css'

const RoutineEditor = lazy(() => import('../routine-editor/RoutineEditor'))
const rank = ['note', 'caution', 'stop']

/** The G-code that the owner writes, at its moments of a print: what every line does, when, where, and what is wrong with it. */
export function RoutinesTab() {
  const { document: card, set, change } = useCard()
  const [params, go] = useAddress()
  const name = moments.find((moment) => moment.name === params.get('moment'))?.name ?? 'start'
  const cursor = Math.max(1, Number(params.get('line')) || 1)
  const layer = Math.max(1, Number(params.get('layer')) || 1)
  const [top, setTop] = useState(0)
  const [show, setShow] = useState<'effect' | 'text'>('effect')
  const [program, macroFile] = [useHanded('program'), useHanded('macros')]
  const [dialog, setDialog] = useState<'carry' | 'learn' | 'macros' | undefined>(() => {
    if (program) return 'learn'
    return macroFile && 'macros'
  })
  const [more, setMore] = useState<HTMLElement>()

  const { data: preview, error, isPlaceholderData } = useRoutinePreview(card, layer)
  const { findings: checked, unlooked } = useFindings(card, aboutRoutines)
  const names = useRoutineNames()
  const flavour = useFlavours().find((one) => one.id === card.firmware?.flavour)
  const macros = useMacros(flavour?.extended ? card.firmware?.macros : undefined)

  const pointer = preview?.moments.find((moment) => moment.moment === name)?.pointer ?? under('/routines', name)
  const text = String(valueAt(card, pointer) ?? '')
  const moment = preview?.moments.find((one) => one.moment === name)
  const all = useMemo(() => distinct([...(preview?.findings ?? []), ...checked]), [preview, checked])
  const here = useMemo(
    () => all.filter((finding) => finding.pointer === pointer).sort((a, b) => rank.indexOf(b.severity) - rank.indexOf(a.severity)),
    [all, pointer],
  )
  const severities = useMemo(
    () => new Map([...here].reverse().flatMap(({ line, severity }) => (line ? [[line, severity] as const] : []))),
    [here],
  )
  const worst = (of: MomentName) =>
    all
      .filter((finding) => finding.pointer === under('/routines', of))
      .map((finding) => finding.severity)
      .sort((a, b) => rank.indexOf(b) - rank.indexOf(a))[0]
  const remedy = useRemedy()
  const { title, about } = moments.find((one) => one.name === name)!
  const now = moment?.lines.find((line) => line.from === cursor)

  return (
    <main className="routines">
      <MomentStrip
        card={card}
        preview={preview}
        chosen={name}
        onChoose={(next) => go({ moment: next, line: '1' })}
        layer={layer}
        onLayer={(next) => go({ layer: String(next) })}
        worst={worst}
      />
      <section className="routine">
        <div className="head-line between">
          <h2 className="caps">
            {title} <span className="plain-case">{about}</span>
          </h2>
          <span className="quiet">
            {flavour?.name ?? 'no flavour'} ·{' '}
            <PassageMenu
              card={card}
              moment={name}
              onTake={(passage) => change((before) => withEdits(before, inserted(pointer, text, cursor, passage)))}
            />{' '}
            ·{' '}
            <button className="link" aria-haspopup="menu" onClick={(event) => setMore(event.currentTarget)}>
              more
            </button>
            <Menu open={Boolean(more)} anchorEl={more} onClose={() => setMore(undefined)} onClick={() => setMore(undefined)}>
              <MenuItem onClick={() => setDialog('carry')}>carry to another flavour …</MenuItem>
              <MenuItem onClick={() => setDialog('learn')}>learn from a G-code file …</MenuItem>
              {flavour?.extended && <MenuItem onClick={() => setDialog('macros')}>macro file …</MenuItem>}
              {flavour?.files && <MenuItem onClick={() => setDialog('macros')}>command files …</MenuItem>}
            </Menu>
          </span>
        </div>
        <Suspense fallback={<p className="nothing">…</p>}>
          <RoutineEditor
            key={pointer}
            label={`${title} routine`}
            value={text}
            problems={here.filter((finding) => finding.line)}
            names={names}
            values={moment?.values ?? preview?.moments[0]?.values ?? {}}
            flavour={flavour}
            macros={macros}
            cursor={cursor}
            onCursor={(line) => go({ line: String(line) })}
            scrolledTo={top}
            onScroll={setTop}
            onChange={(next) => set(pointer, next)}
          />
        </Suspense>
      </section>
      <section className="does">
        <div className="head-line between">
          <h2 className="caps">{show === 'effect' ? 'What it does' : 'As written'}</h2>
          <button className="link quiet" onClick={() => setShow(show === 'effect' ? 'text' : 'effect')}>
            {show === 'effect' ? 'as written' : 'what it does'}
          </button>
        </div>
        <EffectColumn
          lines={moment?.lines ?? []}
          count={text.split('\n').length}
          show={show}
          cursor={cursor}
          severities={severities}
          scrolledTo={top}
          onScroll={setTop}
          onCursor={(line) => go({ line: String(line) })}
        />
      </section>
      <section className="shown">
        <div className="heat">
          <div className="head-line between">
            <h2 className="caps">Temperature, °C</h2>
            <span className="quiet">{moment ? `at line ${cursor}` : ''}</span>
          </div>
          <SeriesChart
            data={moment?.series}
            from={moment?.at}
            at={now && moment ? moment.at + now.start : undefined}
            onAt={(seconds) => {
              const line = moment?.lines.findLast((one) => moment.at + one.start <= seconds)
              if (line) go({ line: String(line.from) })
            }}
          />
        </div>
        <MomentPath card={card} moment={moment} part={preview?.part} cursor={cursor} />
      </section>
      <aside className="routine-findings">
        <AboutLine line={text.split('\n')[cursor - 1] ?? ''} flavour={flavour} names={names} />
        {now?.steps && <MacroSteps line={now} />}
        {error && !preview && (
          <p className="quiet" role="alert">
            The routines run once the card is complete. {sentenceOf(error)}
          </p>
        )}
        <Findings
          findings={here}
          placeOf={(finding) => (finding.line ? `line ${finding.line}` : undefined)}
          onGo={(finding) => finding.line && go({ line: String(finding.line) })}
          onRemedy={remedy}
          unlooked={unlookedBy(error, !preview || isPlaceholderData) ?? unlooked}
          fine={text.trim() ? 'Nothing to say against this routine.' : 'This routine is empty.'}
        />
      </aside>
      {dialog === 'carry' && <CarryDialog card={card} onClose={() => setDialog(undefined)} onTake={change} />}
      {dialog === 'learn' && <LearnDialog given={program} card={card} onClose={() => setDialog(undefined)} onTake={change} />}
      {dialog === 'macros' && (
        <MacroDialog
          given={macroFile}
          text={card.firmware?.macros ?? ''}
          files={flavour?.files ?? false}
          onClose={() => setDialog(undefined)}
          onTake={(next) => set('/firmware/macros', next)}
        />
      )}
    </main>
  )
}

const aboutRoutines = ({ pointer }: Finding) => /^\/(routines|modes\/\d+\/start)/.test(pointer ?? '')

/** Each finding once: a routine that cannot be written out is found by running it and by looking at the card. */
const distinct = (findings: Finding[]) => [
  ...new Map(findings.map((one) => [`${one.rule} ${one.pointer} ${one.line} ${one.message}`, one])).values(),
]

/** A passage behind the cursor's line; in place of an empty text. */
function inserted(pointer: string, text: string, cursor: number, passage: string) {
  const lines = passage.replace(/\n$/, '')
  return [{ how: text.trim() ? ('insert-after' as const) : ('replace' as const), pointer, line: text.trim() ? cursor : 1, text: lines }]
}
