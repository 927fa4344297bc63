import { useQuery, useSuspenseQuery } from '@tanstack/react-query'
import { answerOf, type Outcome } from '../api/client'
import { send } from '../api/send'
import type { Limits } from '../units/limits'
import { stepsOf } from './pointer'

/** What the server says of a document, or of a member of it. */
export interface SchemaNode {
  $ref?: string
  anyOf?: SchemaNode[]
  items?: SchemaNode
  properties?: Record<string, SchemaNode>
  additionalProperties?: SchemaNode
  type?: string | string[]
  enum?: (string | null)[]
  title?: string
  minimum?: number
  maximum?: number
  exclusiveMinimum?: number
  maxLength?: number
  'x-unit'?: string
  'x-short'?: string
  'x-group'?: string
  'x-also'?: string
  'x-hint'?: string
  'x-otherwise'?: string
  'x-when'?: string
  'x-look'?: 'percent' | 'ratio' | 'code' | 'pairs'
  'x-departs'?: 'part' | 'zone'
  'x-pages'?: ('trial' | 'sheet')[]
  'x-says'?: string
  'x-tends'?: Partial<Record<Outcome, number>>
  'x-needed'?: boolean
  'x-words'?: Record<string, string>
  'x-below'?: Record<string, SchemaNode>
}

export type DocumentKind = 'card' | 'filament' | 'recipe' | 'trial'

/** The schema of a kind of document, as drafts keep to it. */
export const useSchemaOf = (kind: DocumentKind): SchemaNode => useSuspenseQuery(asked(kind)).data

/** The same once it is here, for pages that do not wait for it. */
export const useSchemaIfHere = (kind: DocumentKind): SchemaNode | undefined => useQuery(asked(kind)).data

const asked = (kind: DocumentKind) => ({
  queryKey: ['schema', kind],
  staleTime: Infinity,
  queryFn: async () => answerOf<SchemaNode>(await send(`/api/schemas/${kind}-1.json?draft=true`)),
})

/** What the schema of a kind of document says of the field at a pointer. */
export function useSchema(kind: DocumentKind): (pointer: string) => Limits {
  const schema = useSchemaOf(kind)
  return (pointer) => limitsOf(fieldAt(schema, pointer))
}

/** The limits that a field holds to. */
export function limitsOf(node: SchemaNode | undefined): Limits {
  if (!node) return {}
  return {
    label: node.title,
    unit: node['x-unit'],
    above: node.exclusiveMinimum,
    least: node.minimum,
    most: node.maximum,
    whole: typesOf(node).includes('integer'),
  }
}

/** JSON types that a value may have. */
export const typesOf = (node: SchemaNode): string[] => [node.type ?? []].flat()

/** The field at a pointer; undefined where the schema has none. */
export function fieldAt(root: SchemaNode, pointer: string): SchemaNode | undefined {
  let nodes = variants(root, root)
  for (const step of stepsOf(pointer))
    nodes = nodes
      .map((node) => (/^(\d+|-)$/.test(step) ? node.items : undefined) ?? node.properties?.[step] ?? node.additionalProperties)
      .filter((node) => node !== undefined)
      .flatMap((node) => variants(root, node))
  return nodes[0]
}

/** The node behind references, and the kinds it may be; what stands beside a reference goes before what it leads to. */
export function variants(root: SchemaNode, node: SchemaNode): SchemaNode[] {
  if (node.$ref) {
    const { $ref, ...own } = node
    const target = stepsOf($ref.slice(1)).reduce<unknown>((at, step) => (at as Record<string, unknown>)[step], root) as SchemaNode
    return variants(root, { ...target, ...own })
  }
  return [node, ...(node.anyOf ?? []).flatMap((kind) => variants(root, kind))]
}
