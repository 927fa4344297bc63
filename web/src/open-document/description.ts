import { useMemo } from 'react'
import type { Outcome } from '../api/client'
import type { Limits } from '../units/limits'
import { fieldAt, limitsOf, typesOf, useSchemaIfHere, useSchemaOf, variants, type DocumentKind, type SchemaNode } from './schema'
import { under } from './pointer'

/** A setting or fact, as the server describes it. */
export interface Setting {
  pointer: string
  /** Its name as it stands in a sentence. */
  name: string
  /** Its name below the heading of its group. */
  label: string
  group: string
  /** `place` is a point or an outline, which a page asks in its own way. */
  kind: 'number' | 'text' | 'code' | 'pairs' | 'choice' | 'switch' | 'open' | 'place'
  limits: Limits
  choices?: Record<string, string>
  percent?: boolean
  ratio?: boolean
  /** It has a value in every document. */
  needed?: boolean
  /** What holds where nothing is said. */
  otherwise?: string
  /** Other words by which it is looked for. */
  also?: string
  hint?: string
  when?: string
  /** What raising it tends to do. */
  says?: string
  /** Outcomes that it moves, from −3, much worse, to 3, much better; 0 for either way. */
  tends: [Outcome, number][]
  departs?: 'part' | 'zone'
  pages: string[]
}

export interface SettingGroup {
  title: string
  settings: Setting[]
}

/** All settings that stand under a heading, in the order of the document. */
export function settingsOf(root: SchemaNode): Setting[] {
  const found = new Map<string, Setting>()
  const walk = (node: SchemaNode, pointer: string, group: string | undefined, otherwise: string | undefined) => {
    const heading = node['x-group'] ?? group
    const holds = node['x-otherwise'] ?? otherwise
    const kinds = variants(root, node)
    const single = kinds.every((kind) => !kind.properties && !isListOfRecords(root, kind))
    if (node.title && heading && !found.has(pointer) && (single || node['x-pages']))
      found.set(pointer, settingAt(pointer, node, single, heading, holds))
    for (const kind of kinds) {
      for (const [name, inner] of Object.entries(kind.properties ?? {}))
        walk({ ...variants(root, inner)[0], ...node['x-below']?.[name] }, under(pointer, name), heading, holds)
      // the first of a list stands for all that a page of the first asks
      if (heading && isListOfRecords(root, kind)) walk(variants(root, kind.items!)[0]!, under(pointer, '0'), heading, holds)
    }
  }
  walk(root, '', undefined, undefined)
  return [...found.values()]
}

const isListOfRecords = (root: SchemaNode, node: SchemaNode) =>
  node.items !== undefined && variants(root, node.items).some((kind) => kind.properties !== undefined)

function settingAt(pointer: string, node: SchemaNode, single: boolean, group: string, otherwise: string | undefined): Setting {
  const kind = single ? kindOf(node) : 'place'
  const words = node['x-words']
  const none = otherwise ?? 'not said'
  return {
    pointer,
    name: node.title!,
    label: node['x-short'] ?? node.title!,
    group,
    kind,
    limits: limitsOf(node),
    ...(words && { choices: node.enum?.includes(null) ? { '': none, ...words } : words }),
    percent: node['x-look'] === 'percent',
    ratio: node['x-look'] === 'ratio',
    needed: node['x-needed'] ?? (kind === 'number' && !typesOf(node).includes('null')),
    ...(otherwise && { otherwise }),
    ...(node['x-also'] && { also: node['x-also'] }),
    ...(node['x-hint'] && { hint: node['x-hint'] }),
    ...(node['x-when'] && { when: node['x-when'] }),
    ...(node['x-says'] && { says: node['x-says'] }),
    tends: Object.entries(node['x-tends'] ?? {}) as [Outcome, number][],
    ...(node['x-departs'] && { departs: node['x-departs'] }),
    pages: node['x-pages'] ?? [],
  }
}

function kindOf(node: SchemaNode): Setting['kind'] {
  if (node['x-words']) return 'choice'
  if (node['x-look'] === 'code' || node['x-look'] === 'pairs') return node['x-look']
  const types = typesOf(node)
  if (types.includes('boolean')) return types.includes('null') ? 'open' : 'switch'
  return types.includes('number') || types.includes('integer') ? 'number' : 'text'
}

/** Settings under their headings; a heading stands where its first setting stands. */
export function grouped(settings: Setting[]): SettingGroup[] {
  const groups = new Map<string, Setting[]>()
  for (const setting of settings) groups.set(setting.group, [...(groups.get(setting.group) ?? []), setting])
  return [...groups].map(([title, own]) => ({ title, settings: own }))
}

/** Whether a setting is meant by words of a search, all of which it must answer, by its own words or others that stand for it. */
export function answers(setting: Setting, search: string, others = ''): boolean {
  const said = [setting.group, setting.label, setting.name, setting.also, setting.says, others].join(' ').toLowerCase()
  return search
    .toLowerCase()
    .split(/\s+/)
    .every((word) => said.includes(word))
}

/** The settings of a kind of document. */
export function useSettings(kind: DocumentKind): Setting[] {
  const schema = useSchemaOf(kind)
  return useMemo(() => settingsOf(schema), [schema])
}

/** What one part may have of its own, or what a zone may. */
export function useDepartures(of: 'part' | 'zone'): Setting[] {
  return useSettings('recipe').filter((setting) => setting.departs === 'zone' || (of === 'part' && setting.departs === 'part'))
}

/** What the choice at a pointer is called; undefined where it is not made. */
export type Word = (pointer: string, value: string | null | undefined) => string | undefined

/** The words for choices in a kind of document; until they are here, the choices' own. */
export function useWords(kind: DocumentKind): Word {
  const schema = useSchemaIfHere(kind)
  return (pointer, value) => (value ? ((schema && fieldAt(schema, pointer)?.['x-words']?.[value]) ?? value) : undefined)
}
