import { Button } from '@mui/material'
import { keepPreviousData, useQuery } from '@tanstack/react-query'
import { useSnackbar } from 'notistack'
import { useState } from 'react'
import { createStore, useStore, type StoreApi } from 'zustand'
import { download } from '../shell/download'
import { json, send } from '../api/send'
import { api, answerOf, dataOf, sentenceOf, type Filament, type GaugeAnswer, type GaugeResult, type Recipe } from '../api/client'
import { useCard } from '../open-card/CardContext'
import { known } from '../open-card/sources'
import { DocumentOptions } from '../open-document/DocumentOptions'
import { documents } from '../open-document/documents'
import type { DocumentState } from '../open-document/documentStore'
import { withValue } from '../open-document/pointer'
import { useDocumentStore } from '../open-document/useDocument'
import { SeverityMark } from '../findings/SeverityMark'
import { duration, plain } from '../units/format'
import { boxOf } from '../drawing/outline'
import { fitted, toX, toY } from '../drawing/view'
import { NumberField } from '../units/NumberField'
import './gauges.css'

const nothing = createStore<undefined>(() => undefined)

/** Small test prints made for this card, each with a sheet for what is measured on it. */
export function GaugesTab() {
  const { document: card } = useCard()
  const [filamentId, setFilament] = useState<string>()
  const [recipeId, setRecipe] = useState<string>()
  const { data: filaments } = useQuery({ queryKey: ['list', 'filaments'], queryFn: () => documents.list('filaments') })
  const { data: recipes } = useQuery({ queryKey: ['list', 'recipes'], queryFn: () => documents.list('recipes') })
  const { data: filamentStore } = useDocumentStore('filaments', filamentId)
  const { data: recipeStore } = useDocumentStore('recipes', recipeId)
  const filament = useStore<StoreApi<DocumentState<Filament> | undefined>>(filamentStore ?? nothing)
  const recipe = useStore<StoreApi<DocumentState<Recipe> | undefined>>(recipeStore ?? nothing)
  const others = (card.head?.nozzles ?? []).slice(1).map((nozzle) => nozzle.id)
  const [measured, setMeasured] = useState<string>()
  const question = {
    card: { ...card, sources: undefined },
    filament: filament?.document,
    recipe: recipe?.document,
    nozzle: others.length > 1 ? (measured ?? others[0]) : undefined,
  }
  const { data: pieces, error } = useQuery({
    queryKey: ['gauges', JSON.stringify(question)],
    placeholderData: keepPreviousData,
    retry: false,
    queryFn: async ({ signal }) => dataOf(await api.POST('/api/gauges', { body: question, signal })),
  })
  return (
    <main className="gauges-tab">
      <div className="gauge-with">
        <label className="small-field">
          printed with
          <select
            className="plain-field"
            aria-label="filament"
            value={filamentId ?? ''}
            onChange={(event) => setFilament(event.target.value || undefined)}
          >
            <option value="">a moderate PLA, made for this card</option>
            <DocumentOptions of={filaments} />
          </select>
        </label>
        <label className="small-field">
          in lines of
          <select
            className="plain-field"
            aria-label="recipe"
            value={recipeId ?? ''}
            onChange={(event) => setRecipe(event.target.value || undefined)}
          >
            <option value="">a moderate recipe, made for this card</option>
            <DocumentOptions of={recipes} />
          </select>
        </label>
        {others.length > 1 && (
          <label className="small-field">
            offset measured of
            <select
              className="plain-field"
              aria-label="nozzle to be measured"
              value={question.nozzle}
              onChange={(event) => setMeasured(event.target.value)}
            >
              {others.map((id) => (
                <option key={id}>{id}</option>
              ))}
            </select>
          </label>
        )}
        <p className="quiet">Print a piece, measure it, type what you read: what follows becomes a fact with the source measured.</p>
      </div>
      {error && (
        <p className="nothing" role="alert">
          {sentenceOf(error)} A gauge piece takes a card on which nothing needed is missing.
        </p>
      )}
      {pieces?.map((piece) => (
        <Gauge key={piece.id} piece={piece} question={question} filament={filament} />
      ))}
    </main>
  )
}

interface GaugeProps {
  piece: GaugeAnswer
  question: { card: object; filament: Filament | undefined; recipe: Recipe | undefined; nozzle: string | undefined }
  filament: DocumentState<Filament> | undefined
}

function Gauge({ piece, question, filament }: GaugeProps) {
  const { enqueueSnackbar } = useSnackbar()
  const [readings, setReadings] = useState<Record<string, number>>({})
  const body = { ...question, readings }
  const { data: tried } = useQuery({
    queryKey: ['gauge-run', piece.id, JSON.stringify(question)],
    enabled: !piece.notFor,
    placeholderData: keepPreviousData,
    retry: false,
    queryFn: async ({ signal }) =>
      dataOf(await api.POST('/api/gauges/{id}/dry-run', { params: { path: { id: piece.id } }, body: question, signal })),
  })
  const { data: results } = useQuery({
    queryKey: ['gauge-result', piece.id, JSON.stringify(body)],
    enabled: Object.keys(readings).length > 0,
    retry: false,
    queryFn: async ({ signal }) => dataOf(await api.POST('/api/gauges/{id}/result', { params: { path: { id: piece.id } }, body, signal })),
  })
  const save = async () => {
    try {
      const answer = await send(`/api/gauges/${piece.id}`, { method: 'POST', ...json(question) })
      if (!answer.ok) await answerOf(answer)
      download(await answer.blob(), `${piece.id}.gcode`)
    } catch (failure) {
      enqueueSnackbar(sentenceOf(failure), { variant: 'error' })
    }
  }
  const stops = tried?.findings ?? []
  return (
    <section className="gauge" aria-label={piece.name}>
      <div>
        <h2>{piece.name}</h2>
        <p>{piece.notFor ?? piece.about}</p>
        {!piece.notFor && (
          <p className="gauge-run">
            <Button disabled={tried?.seconds == null} onClick={() => void save()}>
              Save the G-code
            </Button>
            {tried?.seconds != null && (
              <span className="quiet">
                {duration(tried.seconds)}, {plain((tried.filament ?? 0) / 1000, 2)} m of filament
              </span>
            )}
            {tried && stops.length === 0 && <span className="fits">dry run without a finding</span>}
          </p>
        )}
        {stops.slice(0, 3).map((finding) => (
          <p key={finding.message} className="short-finding">
            <SeverityMark severity={finding.severity} />
            <span>{finding.message}</span>
          </p>
        ))}
      </div>
      <GaugeFromAbove lines={tried?.lines ?? []} name={piece.name} />
      {!piece.notFor && (
        <div className="gauge-sheet">
          {piece.readings.map((reading) => (
            <label key={reading.name} className="small-field">
              {reading.label}
              <NumberField
                value={readings[reading.name]}
                label={`${piece.name}, ${reading.label}`}
                limits={{ unit: reading.unit, least: -1000, most: 1000 }}
                placeholder={reading.nominal == null ? '' : plain(reading.nominal)}
                onChange={(value) => setReadings((before) => withoutOr(before, reading.name, value))}
              />
            </label>
          ))}
          {Object.keys(readings).length > 0 &&
            results?.map((result) => <Result key={result.pointer} result={result} filament={filament} />)}
        </div>
      )}
    </section>
  )
}

/** What follows from a measurement: the value as measured and, where there is one, the exact value that it means. */
function Result({ result, filament }: { result: GaugeResult; filament: DocumentState<Filament> | undefined }) {
  const { change } = useCard()
  const same = result.old != null && Math.abs(result.old - result.new) < 1e-9
  const take = (value: number, words: string) => {
    if (result.document === 'card')
      return (
        <button
          className="link"
          onClick={() => change((before) => known(withValue(before, result.pointer, value), [result.pointer], 'measured'))}
        >
          {words}
        </button>
      )
    if (!filament) return <span className="quiet">choose the filament above to take it</span>
    return (
      <button className="link" onClick={() => filament.set(result.pointer, value)}>
        {words} for {filament.document.name}
      </button>
    )
  }
  return (
    <p>
      {result.label}: <span className="mono">{result.old == null ? '–' : plain(result.old)}</span> →{' '}
      <span className="mono">{plain(result.new)}</span> {result.unit}{' '}
      {same ? <span className="fits">as it is</span> : take(result.new, result.exact == null ? 'take it' : `take ${plain(result.new)}`)}
      {result.exact != null && (
        <>
          {' '}
          or exactly <span className="mono">{plain(result.exact)}</span>, {result.says} {take(result.exact, `take ${plain(result.exact)}`)}
        </>
      )}
      {result.exact == null && result.says && <span className="quiet"> {result.says}</span>}
    </p>
  )
}

/** Readings with one more, or without it. */
const withoutOr = (before: Record<string, number>, name: string, value: number | undefined): Record<string, number> =>
  Object.fromEntries([...Object.entries(before).filter(([key]) => key !== name), ...(value === undefined ? [] : [[name, value] as const])])

/** The piece from above, to no scale. */
function GaugeFromAbove({ lines, name }: { lines: number[][][]; name: string }) {
  if (lines.length === 0) return <span />
  const [minX, minY, maxX, maxY] = boxOf(lines.flat())
  const view = fitted(
    { x: minX, y: minY, width: Math.max(1, maxX - minX), depth: Math.max(1, maxY - minY) },
    { x: 4, y: 4, width: 142, height: 102 },
  )
  return (
    <svg className="gauge-drawing" viewBox="0 0 150 110" role="img" aria-label={`${name} from above`}>
      <path
        d={lines.map((line) => `M${line.map(([x, y]) => `${toX(view, x!).toFixed(1)} ${toY(view, y!).toFixed(1)}`).join('L')}`).join('')}
      />
    </svg>
  )
}
