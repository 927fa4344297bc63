import { expect, it } from 'vitest'
import { colorSchemes } from '../shell/theme'

const files = Object.entries(import.meta.glob<string>('../*/*.css', { query: '?raw', import: 'default', eager: true }))

/** The classes with which the selectors of a stylesheet begin; the kit's `.drawing` may stand before one. */
function roots(css: string): Set<string> {
  const plain = css.replaceAll(/\/\*[^]*?\*\//g, '').replaceAll(/@media[^{]*\{/g, '')
  const selectors = [...plain.matchAll(/([^{}]+)\{/g)].flatMap(([, selector]) => selector!.split(/,(?![^(]*\))/))
  return new Set(
    selectors.flatMap((selector) => {
      const classes = [...selector.matchAll(/\.(-?[a-z][\w-]*)/gi)].map(([, name]) => name!)
      return classes.slice(classes[0] === 'drawing' && classes.length > 1 ? 1 : 0).slice(0, 1)
    }),
  )
}

it('gives every class to one stylesheet, so that no screen changes another', () => {
  expect(files.length).toBeGreaterThan(15)
  const owners = new Map<string, string[]>()
  for (const [file, css] of files) for (const name of roots(css)) owners.set(name, [...(owners.get(name) ?? []), file])
  expect(owners.size).toBeGreaterThan(100)
  expect([...owners].filter(([, of]) => of.length > 1)).toEqual([])
})

it('keeps colours in the tokens', () => {
  const coloured = files.filter(([file, css]) => !file.endsWith('/tokens.css') && /#[0-9a-f]{3,8}\b/i.test(css.replaceAll(/#root/g, '')))
  expect(coloured.map(([file]) => file)).toEqual([])
})

it('gives the theme the colours of the tokens', () => {
  const tokens = files.find(([file]) => file.endsWith('/tokens.css'))![1]
  const [light, dark] = tokens
    .split('[data-scheme=')
    .map((css) => Object.fromEntries([...css.matchAll(/--([\w-]+): (#[0-9a-f]+);/g)].map(([, name, value]) => [name!, value!])))
  const named = {
    paper: 'background.default',
    sheet: 'background.paper',
    ink: 'text.primary',
    'ink-2': 'text.secondary',
    madder: 'secondary.main',
    moss: 'success.main',
    'ochre-ink': 'warning.main',
    hair: 'divider',
  }
  for (const [scheme, of] of [
    ['light', light],
    ['dark', dark],
  ] as const)
    for (const [token, path] of Object.entries(named)) {
      const colour = path.split('.').reduce<unknown>((at, step) => (at as Record<string, unknown>)[step], colorSchemes[scheme].palette)
      expect(`${scheme} ${token} ${String(colour).toLowerCase()}`).toBe(`${scheme} ${token} ${of![token]}`)
    }
})
