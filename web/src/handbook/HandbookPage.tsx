import { useDeferredValue, useEffect, type ReactNode } from 'react'
import { Link, NavLink, useLocation, useParams } from 'react-router'
import type { CameFrom } from '../shell/HandbookLink'
import { Shell } from '../shell/Shell'
import { useAddress } from '../shell/useAddress'
import { chapters, type ChapterName } from './chapters'
import './handbook.css'

/** The handbook: the order of work, the words, and all that the code itself can tell. It is searched and printed as it is shown. */
export default function HandbookPage() {
  const { chapter = 'order' } = useParams()
  const [params, change] = useAddress()
  const search = params.get('find') ?? ''
  const sought = useDeferredValue(search.trim().toLowerCase())
  const names = Object.keys(chapters) as ChapterName[]
  const shown = sought === '' ? names.filter((name) => name === chapter) : names
  const { hash, state } = useLocation() as { hash: string; state: CameFrom | null }
  useEffect(() => {
    if (!hash) return
    const id = decodeURIComponent(hash.slice(1))
    // what is linked to comes once the server has told it
    const look = setInterval(() => {
      const place = document.getElementById(id)
      if (!place) return
      clearInterval(look)
      // a link within the application does not make a target of what it leads to
      document.querySelectorAll('[data-meant]').forEach((before) => before.removeAttribute('data-meant'))
      place.setAttribute('data-meant', '')
      place.scrollIntoView({ block: 'center' })
    }, 100)
    return () => clearInterval(look)
  }, [hash, chapter])
  return (
    <Shell
      trail={[{ name: 'Rack', to: '/' }]}
      title="Handbook"
      tools={
        <input
          className="search"
          data-search
          value={search}
          placeholder="Find in the handbook"
          aria-label="Find in the handbook"
          onChange={(event) => change({ find: event.target.value }, { state })}
        />
      }
    >
      <div className="handbook">
        <nav aria-label="Chapters">
          {state?.from && (
            <Link to={state.from} className="came-from">
              back to where you were
            </Link>
          )}
          {names.map((name) => (
            <NavLink key={name} to={`/handbook/${name}`} state={state} className={() => (sought === '' && name === chapter ? 'here' : '')}>
              {chapters[name].title}
            </NavLink>
          ))}
          <button className="key" onClick={() => window.print()}>
            print this
          </button>
        </nav>
        {/* it scrolls and holds nothing that takes the focus */}
        {/* eslint-disable-next-line jsx-a11y/no-noninteractive-tabindex */}
        <main className="page" tabIndex={0}>
          {shown.length === 0 && <p className="nothing">The handbook has no such chapter.</p>}
          {shown.map((name) => {
            const { title, Chapter } = chapters[name]
            return (
              <Part key={name} title={title} quiet={sought !== ''}>
                <Chapter sought={sought} />
              </Part>
            )
          })}
        </main>
      </div>
    </Shell>
  )
}

/** A chapter; while something is sought, one that holds nothing of it takes no room. */
function Part({ title, quiet, children }: { title: string; quiet: boolean; children: ReactNode }) {
  return (
    <section aria-label={title} className={quiet ? 'found' : undefined}>
      <h1>{title}</h1>
      {children}
    </section>
  )
}
