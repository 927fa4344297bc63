import { Shell } from './Shell'

interface WaitingProps {
  /** Where the page stands. */
  trail: { name: string; to: string }[]
  /** What kind of page it is. */
  title: string
  /** What has not come yet, each in a word or two. */
  waitsFor: string[]
}

/** A page that is not there yet: its frame, and what it waits for. */
export function Waiting({ trail, title, waitsFor }: WaitingProps) {
  return (
    <Shell trail={trail} title={title}>
      <main className="waiting" aria-busy>
        <p role="status">Waiting for {waitsFor.join(' and ')} …</p>
      </main>
    </Shell>
  )
}
