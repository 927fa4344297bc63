import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useEffect, useState } from 'react'
import { api, dataOf, sentenceOf, type VariantAnswer } from '../api/client'
import { useSettings } from '../open-document/description'
import { inField } from '../shell/Shortcuts'
import { duration, plain } from '../units/format'
import { useTrial } from './TrialContext'

type Figures = VariantAnswer['figures']

const rows: { name: string; of: (figures: Figures) => number | null | undefined; said: (value: number) => string }[] = [
  { name: 'time', of: ({ seconds }) => seconds, said: duration },
  { name: 'mass', of: ({ grams }) => grams, said: (value) => `${plain(value, 1)} g` },
  { name: 'cost', of: ({ cost }) => cost, said: (value) => value.toFixed(2) },
  { name: 'peak flow', of: ({ peakFlow }) => peakFlow, said: (value) => plain(value, 1) },
  { name: 'layers', of: ({ layers }) => layers, said: String },
  { name: 'stops', of: ({ stops }) => stops, said: String },
  { name: 'cautions', of: ({ cautions }) => cautions, said: String },
]

/** What else of a trial may be otherwise, in words. */
const otherwise: Record<string, string> = {
  parts: 'parts lie or stand otherwise',
  zones: 'other zones',
  stops: 'other events',
  heights: 'other bands of heights',
  sequence: 'another print order',
  mode: 'another mode',
  filament: 'another filament',
  secondFilament: 'another second filament',
  loaded: 'other filaments in the nozzles',
  recipe: 'another recipe',
  limits: 'other limits',
  card: 'another card',
}

/** Kept states of the trial with what came of them, side by side with what it comes to now. */
export function Variants() {
  const { id, run, stale, unsaved, laid, change, recipe } = useTrial('id', 'run', 'stale', 'unsaved', 'laid', 'change', 'recipe')
  const client = useQueryClient()
  const [problem, setProblem] = useState<string>()
  const path = { params: { path: { id } } }
  const { data: kept = [] } = useQuery({
    // what differs is told against what is saved now
    queryKey: ['variants', id, run?.at],
    queryFn: async () => dataOf(await api.GET('/api/trials/{id}/variants', path)),
  })
  const settings = useSettings('recipe')
  const ready = Boolean(run) && !stale && !unsaved && run?.result.origin !== 'file'
  const keep = async () => {
    try {
      client.setQueryData(['variants', id, run?.at], dataOf(await api.POST('/api/trials/{id}/variants', path)))
      setProblem(undefined)
    } catch (failure) {
      setProblem(sentenceOf(failure))
    }
  }
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (event.key === 'k' && !inField(event) && !event.ctrlKey && !event.metaKey && !event.altKey && ready) void keep()
    }
    window.addEventListener('keydown', onKey)
    return () => window.removeEventListener('keydown', onKey)
  })
  const take = async (letter: string) => {
    try {
      const state = dataOf(await api.GET('/api/trials/{id}/variants/{letter}', { params: { path: { id, letter } } }))
      change((now) => ({ ...state.trial, name: now.name }))
      recipe?.change((now) => ({ ...state.recipe, name: now.name }))
      setProblem(undefined)
    } catch (failure) {
      setProblem(sentenceOf(failure))
    }
  }
  const now: Figures | undefined = run && {
    ...run.result,
    peakFlow: run.result.peakFlow?.flow ?? null,
    stops: run.result.findings.filter(({ severity }) => severity === 'stop').length,
    cautions: run.result.findings.filter(({ severity }) => severity === 'caution').length,
  }
  if (laid === 0) return null
  return (
    <section aria-label="Variants">
      <div className="head-line between">
        <h2 className="caps">Variants</h2>
        <button className="link" disabled={!ready} onClick={() => void keep()}>
          keep this one · k
        </button>
      </div>
      {problem && (
        <p className="trouble" role="alert">
          {problem}
        </p>
      )}
      {kept.length === 0 ? (
        <p className="quiet">What is kept here, with its settings, its places and what comes of it, can be compared and taken back.</p>
      ) : (
        <div className="variants-table">
          <table className="list">
            <thead>
              <tr>
                <th></th>
                {kept.map(({ letter, at }) => (
                  <th key={letter} className="number" title={new Date(at).toLocaleString()}>
                    {letter}
                  </th>
                ))}
                <th className="number">now</th>
              </tr>
            </thead>
            <tbody>
              {rows.map(({ name, of, said }) => (
                <tr key={name}>
                  <td>{name}</td>
                  {kept.map(({ letter, figures }) => (
                    <td key={letter} className="number">
                      {saidOf(of(figures), said)}
                    </td>
                  ))}
                  <td className={stale ? 'number stale' : 'number'}>{now ? saidOf(of(now), said) : '…'}</td>
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      )}
      {kept.map((variant) => {
        const differs = differencesOf(variant, settings)
        return (
          <p key={variant.letter} className="variant-line">
            <span className="quiet">
              {differs.length === 0 ? `${variant.letter} is as it is now.` : `${variant.letter} has ${differs.join(', ')}.`}
            </span>
            {differs.length > 0 && (
              <button className="link" onClick={() => void take(variant.letter)}>
                take {variant.letter}
              </button>
            )}
          </p>
        )
      })}
    </section>
  )
}

const saidOf = (value: number | null | undefined, said: (value: number) => string) => (value == null ? '–' : said(value))

/** What a kept state has that is otherwise now, in words. */
function differencesOf({ recipe, otherwise: members }: VariantAnswer, settings: ReturnType<typeof useSettings>): string[] {
  const own = Object.entries(recipe).map(([pointer, value]) => {
    const setting = settings.find((one) => one.pointer === pointer)
    if (!setting) return 'other settings'
    return value == null
      ? `no ${setting.label}`
      : `${setting.label} ${wordsOf(value, setting.percent)}${setting.limits.unit ? ` ${setting.limits.unit}` : ''}`
  })
  return [...new Set([...own, ...members.map((member) => otherwise[member] ?? 'other settings')])]
}

function wordsOf(value: unknown, percent = false): string {
  if (typeof value === 'number') return percent ? `${plain(100 * value)} %` : plain(value)
  if (typeof value === 'boolean') return value ? 'on' : 'off'
  return typeof value === 'string' ? value : 'otherwise'
}
