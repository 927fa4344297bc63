import { expect, it } from 'vitest'

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
