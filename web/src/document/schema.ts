import { useSuspenseQuery } from '@tanstack/react-query'
import type { Limits } from '../units/limits'
import { stepsOf } from './pointer'

interface SchemaNode {
  $ref?: string
  anyOf?: SchemaNode[]
  items?: SchemaNode
  properties?: Record<string, SchemaNode>
  additionalProperties?: SchemaNode
  type?: string | string[]
  title?: string
  'x-unit'?: string
  minimum?: number
  maximum?: number
  exclusiveMinimum?: number
  maxLength?: number
}

/** What the schema of a kind of document says of the field at a pointer. */
export function useSchema(kind: 'card' | 'filament' | 'recipe' | 'trial'): (pointer: string) => Limits {
  const { data } = useSuspenseQuery({
    queryKey: ['schema', kind],
    staleTime: Infinity,
    queryFn: async () => (await (await fetch(`/api/schemas/${kind}-1.json?draft=true`)).json()) as SchemaNode,
  })
  return (pointer) => limitsOf(fieldAt(data, pointer))
}

function limitsOf(node: SchemaNode | undefined): Limits {
  if (!node) return {}
  const types = [node.type ?? []].flat()
  return {
    label: node.title,
    unit: node['x-unit'],
    above: node.exclusiveMinimum,
    least: node.minimum,
    most: node.maximum,
    whole: types.includes('integer'),
  }
}

function fieldAt(root: SchemaNode, pointer: string): SchemaNode | undefined {
  let nodes = variants(root, root)
  for (const step of stepsOf(pointer))
    nodes = nodes
      .map((node) => (/^(\d+|-)$/.test(step) ? node.items : undefined) ?? node.properties?.[step] ?? node.additionalProperties)
      .filter((node) => node !== undefined)
      .flatMap((node) => variants(root, node))
  return nodes[0]
}

/** The node behind references, and the kinds it may be. */
function variants(root: SchemaNode, node: SchemaNode): SchemaNode[] {
  if (node.$ref) {
    const target = stepsOf(node.$ref.slice(1)).reduce<unknown>((at, step) => (at as Record<string, unknown>)[step], root) as SchemaNode
    return variants(root, target)
  }
  return [node, ...(node.anyOf ?? []).flatMap((kind) => variants(root, kind))]
}
