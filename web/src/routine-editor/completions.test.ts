import { CompletionContext, type CompletionResult } from '@codemirror/autocomplete'
import { EditorState } from '@codemirror/state'
import { describe, expect, it } from 'vitest'
import { complete, type Known } from './completions'

const known = {
  names: { 'bed.temperature': 'what the bed is heated to', 'layer.z': 'height of the layer' },
  values: { 'bed.temperature': 60, 'layer.z': 0.20000001 },
  flavour: {
    commands: [
      {
        word: 'M104',
        about: 'nozzle temperature',
        parameters: [{ name: 'S', about: 'target', unit: '°C', min: 0, max: 300 }],
      },
      { word: 'SET_FAN', about: 'fan', parameters: [{ name: 'SPEED', about: 'share' }], needs: 'a fan is set up' },
    ],
  },
  macros: [{ name: 'PRIME', about: null, parameters: ['LENGTH'] }],
} as unknown as Known

/** What is offered where the bar stands. */
function at(text: string, explicit = false): CompletionResult | null {
  const place = text.indexOf('|>')
  const state = EditorState.create({ doc: text.replace('|>', '') })
  return complete(new CompletionContext(state, place, explicit), known)
}
const labels = (result: CompletionResult | null) => result?.options.map(({ label }) => label)

describe('completions', () => {
  it('offer names within a tag, with what they stand for now', () => {
    const found = at('M140 S{{ be|>')
    expect(labels(found)).toEqual(['bed.temperature', 'layer.z'])
    expect(found?.options.map(({ detail }) => detail)).toEqual(['60', '0.2'])
    expect(found?.from).toBe('M140 S{{ '.length)
  })
  it('offer filters behind a bar', () => expect(labels(at('G1 Z{{ layer.z | m|>'))).toContain('at_least'))
  it('offer nothing in a tag before anything is typed, unless asked', () => {
    expect(at('{{ |>')).toBeNull()
    expect(labels(at('{{ |>', true))).toHaveLength(2)
  })
  it('offer names in a tag of logic, and commands behind it', () => {
    expect(labels(at('{% if la|>'))).toContain('layer.z')
    expect(labels(at('{% if x %}\nM1|>'))).toEqual(['M104', 'SET_FAN', 'PRIME'])
  })
  it('offer commands and macros at the begin of a line, told in words', () => {
    const options = at('  M|>')!.options
    expect(options.map(({ label, detail }) => [label, detail])).toEqual([
      ['M104', 'nozzle temperature'],
      ['SET_FAN', 'fan'],
      ['PRIME', 'a macro of this machine'],
    ])
    expect(options.map(({ info }) => info)).toEqual(['S: target, °C (0–300)', 'SPEED: share\nOnly if a fan is set up.', 'Reads LENGTH.'])
  })
  it('offer parameters behind a command: letters bare, words with their sign', () => {
    expect(labels(at('M104 S|>'))).toEqual(['S'])
    expect(labels(at('m104 |>', true))).toEqual(['S'])
    expect(labels(at('SET_FAN SP|>'))).toEqual(['SPEED='])
    expect(labels(at('prime L|>'))).toEqual(['LENGTH='])
  })
  it('offer nothing behind a command that is not known, nor in a number', () => {
    expect(at('M999 S|>')).toBeNull()
    expect(at('M104 S20|>')).toBeNull()
    expect(at('|>')).toBeNull()
  })
})
