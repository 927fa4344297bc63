import { useColorScheme } from '@mui/material'
import { useEffect, type ReactNode } from 'react'
import { Link } from 'react-router'
import { FindEverything } from './FindEverything'
import { Shortcuts } from './Shortcuts'
import { HandbookLink } from './HandbookLink'

interface ShellProps {
  /** Where this page stands: name and address of each page above it. */
  trail: { name: string; to: string }[]
  title: string
  /** How the document stands against the database. */
  state?: ReactNode
  tools?: ReactNode
  /** What has to be decided before all is well, below the bar. */
  notices?: ReactNode
  children: ReactNode
}

/** The bar with the way back, and the page below it. */
export function Shell({ trail, title, state, tools, notices, children }: ShellProps) {
  useEffect(() => {
    document.title = title === 'Rack' ? 'Mill Card' : `${title} · Mill Card`
  }, [title])
  return (
    <div className="shell">
      <header className="bar">
        <Link to="/" className="home" aria-label="Mill Card, to the rack">
          <Mark />
          Mill Card
        </Link>
        <nav className="trail" aria-label="Where this is">
          {trail.map((step) => (
            <span key={step.to}>
              <Link to={step.to}>{step.name}</Link> /{' '}
            </span>
          ))}
          <strong>{title}</strong>
        </nav>
        <span className="space" />
        {state}
        {tools}
        <HandbookLink className="key">handbook</HandbookLink>
        <FindEverything />
        <SchemeKey />
        <Shortcuts />
      </header>
      {notices}
      {children}
    </div>
  )
}

function Mark() {
  return (
    <svg width="26" height="20" viewBox="0 0 28 22" aria-hidden>
      <path d="M1.5 2h20l5 5v13h-25z" fill="var(--sheet)" stroke="var(--ink)" strokeWidth="1.6" />
      <path d="M6 7.5h7M6 12h14M6 16.5h10" stroke="var(--madder)" strokeWidth="1.6" />
    </svg>
  )
}

function SchemeKey() {
  const { mode, systemMode, setMode } = useColorScheme()
  const dark = (mode === 'system' ? systemMode : mode) === 'dark'
  return (
    <button className="key" onClick={() => setMode(dark ? 'light' : 'dark')} title={dark ? 'Ink on paper' : 'Chalk on slate'}>
      {dark ? 'paper' : 'chalk'}
    </button>
  )
}
