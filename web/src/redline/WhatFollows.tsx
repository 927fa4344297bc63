import type { Card, Finding } from '../api/client'
import { SeverityMark } from '../findings/SeverityMark'
import { useFindings } from '../findings/useFindings'

/** What taking the chosen differences over would do to the findings, before it is done. */
export function WhatFollows({ mine, then }: { mine: Card; then: Card | undefined }) {
  const [now, after] = [useFindings(mine), useFindings(then ?? mine)]
  if (!then) return <p className="quiet">Choose differences to see what follows from them.</p>
  const unlooked = now.unlooked ?? after.unlooked
  const [come, go] = [without(after.findings, now.findings), without(now.findings, after.findings)]
  return (
    <section aria-label="What follows" className="what-follows">
      <h2 className="caps">What follows</h2>
      {unlooked && <p className="quiet">{unlooked}</p>}
      {!unlooked && come.length + go.length === 0 && <p>No finding appears or goes.</p>}
      {!unlooked && <Told title="Appears" findings={come} />}
      {!unlooked && <Told title="Goes" findings={go} />}
    </section>
  )
}

const without = (findings: readonly Finding[], others: readonly Finding[]) =>
  findings.filter(({ rule, message }) => !others.some((other) => other.rule === rule && other.message === message))

function Told({ title, findings }: { title: string; findings: readonly Finding[] }) {
  if (findings.length === 0) return null
  return (
    <>
      <h3 className="quiet">{title}</h3>
      {findings.map((finding, i) => (
        <p key={i} className="short-finding">
          <SeverityMark severity={finding.severity} /> <span>{finding.message}</span>
        </p>
      ))}
    </>
  )
}
