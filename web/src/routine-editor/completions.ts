import type { Completion, CompletionContext, CompletionResult } from '@codemirror/autocomplete'
import type { FlavourAnswer } from '../api/client'
import { plain } from '../units/format'

/** What can be completed. */
export interface Known {
  /** What names stand for, in words. */
  names: Record<string, string>
  /** What they stand for at this routine's moment. */
  values: Record<string, unknown>
  flavour: FlavourAnswer | undefined
  macros: { name: string; about?: string | null; parameters: string[] }[]
}

const filters = {
  mm: 'rounded to 3 decimals',
  feed: 'mm/s as mm/min',
  plus: 'and a number more',
  minus: 'and a number less',
  times: 'times a number',
  divided_by: 'divided by a number',
  round: 'rounded',
  at_least: 'no less than',
  at_most: 'no more than',
}

/** Names and filters within tags, commands at the begin of a line, their parameters behind it. */
export function complete(context: CompletionContext, known: Known): CompletionResult | null {
  const inside = context.matchBefore(/\{[{%](?:(?!%\}|\}\}).)*$/)
  const word = context.matchBefore(/[\w.]*/)
  if (inside && word) {
    if (word.from === word.to && !context.explicit) return null
    const options = /\|\s*\w*$/.test(inside.text)
      ? Object.entries(filters).map(([label, detail]): Completion => ({ label, detail, type: 'function' }))
      : Object.entries(known.names).map(([label, about]): Completion => ({
          label,
          detail: present(known.values[label]),
          info: about,
          type: 'variable',
        }))
    return { from: word.from, options, validFor: /^[\w.]*$/ }
  }
  const line = context.state.doc.lineAt(context.pos)
  const before = line.text.slice(0, context.pos - line.from)
  const first = /^\s*([A-Za-z]\w*)?$/.exec(before)
  if (first && (first[1] || context.explicit))
    return { from: context.pos - (first[1]?.length ?? 0), options: commands(known), validFor: /^\w*$/ }
  return parameters(context, before, known)
}

function present(value: unknown): string {
  if (typeof value === 'number') return plain(value, 3)
  return typeof value === 'string' ? value : ''
}

function commands({ flavour, macros }: Known): Completion[] {
  return [
    ...(flavour?.commands ?? []).map(({ word, about, parameters, needs }) => ({
      label: word,
      detail: about ?? '',
      info: [...(parameters ?? []).map(parameterLine), ...(needs ? [`Only if ${needs}.`] : [])].join('\n') || undefined,
      type: 'keyword',
    })),
    ...macros.map(({ name, about, parameters }) => ({
      label: name,
      detail: about ?? 'a macro of this machine',
      info: parameters.length > 0 ? `Reads ${parameters.join(', ')}.` : undefined,
      type: 'function',
    })),
  ]
}

type Parameter = NonNullable<FlavourAnswer['commands'][number]['parameters']>[number]

const parameterLine = ({ name, about, unit, min, max }: Parameter) =>
  `${name}: ${about}${unit ? `, ${unit}` : ''}${typeof min === 'number' || typeof max === 'number' ? ` (${min ?? ''}–${max ?? ''})` : ''}`

function parameters(context: CompletionContext, before: string, { flavour, macros }: Known): CompletionResult | null {
  const [, command = ''] = /^\s*([A-Za-z]\w*)\s/.exec(before) ?? []
  const word = context.matchBefore(/(?<=\s)[A-Za-z_]*/)
  if (!command || !word || (word.from === word.to && !context.explicit)) return null
  const macro = macros.find(({ name }) => name === command.toUpperCase())
  const known = flavour?.commands.find((one) => one.word === command.toUpperCase())?.parameters ?? []
  const options = macro
    ? macro.parameters.map((name): Completion => ({ label: `${name}=`, type: 'property' }))
    : known.map(({ name, about, unit }): Completion => ({
        label: name.length > 1 ? `${name}=` : name,
        detail: `${about}${unit ? `, ${unit}` : ''}`,
        type: 'property',
      }))
  return options.length > 0 ? { from: word.from, options, validFor: /^[A-Za-z_]*$/ } : null
}
