import type { Finding, PartFit, RunResult, Severity } from '../api/client'

/** What is to be said of a trial in one line. */
export interface Verdict {
  words: string
  /** The worst that speaks against it; undefined where nothing does. */
  worst: Severity | undefined
  /** The finding to look at first. */
  first: Finding | undefined
  /** How many findings there are that nobody has accepted. */
  open: number
}

/** Rules about what a program leaves behind. */
const aboutTheEnd = new Set([
  'end-drags-over-part',
  'end-above-travel',
  'head-left-on-part',
  'in-the-way-at-the-end',
  'nozzle-left-on',
  'bed-left-on',
  'fan-left-on',
  'motors-left-on',
  'relative-left-on',
  'carriage-mode-left-on',
])

/** Rules about what could not be looked at. */
const aboutUnseen = new Set(['not-followed', 'unknown-macro', 'unknown-command'])

const count = (n: number, one: string) => (n === 1 ? `1 ${one}` : `${n} ${one}s`)

/** What of it fits, prints, and ends safe. */
export function verdictOf(fits: PartFit[] | undefined, laid: number, result: RunResult): Verdict {
  const findings = result.findings.filter((finding) => finding.accepted == null)
  const bad = findings.filter(({ severity }) => severity !== 'note')
  const [ending, printing] = [bad.filter(({ rule }) => aboutTheEnd.has(rule)), bad.filter(({ rule }) => !aboutTheEnd.has(rule))]
  const stops = printing.filter(({ severity }) => severity === 'stop')
  const known = fits?.length === laid
  const misfits = misfitsIn(fits)
  const print = stops.length ? `must not be printed: ${count(stops.length, 'stop')}` : printed(printing.length)
  const end = ending.length ? 'does not end safe' : 'ends safe'
  const unseen = findings.some(({ rule }) => aboutUnseen.has(rule)) ? ', as far as it can be seen' : ''
  return {
    words: `${fitting(known, misfits, laid)}, ${print}, ${end}${unseen}`,
    worst: worstOf(misfits > 0 || bad.some(({ severity }) => severity === 'stop'), bad.length > 0 || !known),
    first: findings[0],
    open: findings.length,
  }
}

const printed = (cautions: number) => (cautions ? `prints with ${count(cautions, 'caution')}` : 'prints')

const misfitsIn = (fits: PartFit[] | undefined) => fits?.filter((fit) => fit.fits === false).length ?? 0

/** What does not fit, in words; undefined where nothing is known not to. */
export const misfitOf = (fits: PartFit[] | undefined, laid: number) =>
  misfitsIn(fits) > 0 ? fitting(true, misfitsIn(fits), laid) : undefined

function fitting(known: boolean, misfits: number, laid: number): string {
  if (!known) return 'Fit not known yet'
  if (misfits === 0) return 'Fits'
  return laid === 1 ? 'Does not fit' : `${misfits} of ${laid} parts do not fit`
}

function worstOf(stop: boolean, caution: boolean): Severity | undefined {
  if (stop) return 'stop'
  return caution ? 'caution' : undefined
}
