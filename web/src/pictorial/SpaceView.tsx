import { Canvas, useThree } from '@react-three/fiber'
import { useEffect, useLayoutEffect, useRef, type KeyboardEvent, type PointerEvent, type ReactNode } from 'react'
import { Vector3, type OrthographicCamera } from 'three'
import { drawnWith } from './drawnWith'
import { directionsOf, nearer, pictured, shifted, turned, type Look, type XYZ } from './look'

interface SpaceViewProps {
  name: string
  width: number
  height: number
  look: Look
  onLook: (look: Look) => void
  /** Shows everything, from where it is seen by default. */
  onFit: () => void
  /** Told when the pointer begins and ends turning it. */
  onTurning: (turning: boolean) => void
  /** Whether the pointer paints instead of turning. */
  painting: boolean
  /** Whether something of what is drawn is held, so that the pointer does not turn the view. */
  holding: () => boolean
  /** Letters that stand at places in space. */
  labels: readonly Label[]
  children: ReactNode
}

export interface Label {
  at: XYZ
  text: string
  kind: 'axis' | 'part' | 'part chosen'
}

const step = 5
/** Farther than this a press is no click, px. */
const still = 4

/** Space on the sheet: turned by dragging or by arrow keys, moved with Shift, nearer by the wheel. */
export function SpaceView({ name, width, height, look, onLook, onFit, onTurning, painting, holding, labels, children }: SpaceViewProps) {
  const held = useRef<[number, number]>(undefined)
  const frame = useRef<HTMLDivElement>(null)
  const now = useRef(look)
  useLayoutEffect(() => {
    now.current = look
  }, [look])
  const set = (next: Look) => {
    now.current = next
    onLook(next)
  }
  useEffect(() => {
    // a wheel that zooms must not scroll the page too, which a listener of the framework's cannot say
    const element = frame.current
    if (!element) return
    const onWheel = (event: WheelEvent) => {
      event.preventDefault()
      const box = element.getBoundingClientRect()
      set(nearer(now.current, Math.exp(-event.deltaY / 400), [event.clientX - box.left, event.clientY - box.top], width, height))
    }
    element.addEventListener('wheel', onWheel, { passive: false })
    return () => element.removeEventListener('wheel', onWheel)
  })
  const down = (event: PointerEvent<HTMLDivElement>) => {
    if (holding() || (painting && event.button === 0 && !event.altKey)) return
    held.current = [event.clientX, event.clientY]
  }
  const move = (event: PointerEvent<HTMLDivElement>) => {
    if (!held.current) return
    const [dx, dy] = [event.clientX - held.current[0], event.clientY - held.current[1]]
    const turns = event.currentTarget.hasPointerCapture(event.pointerId)
    // a press that stays where it is chooses what is under it
    if (!turns && Math.hypot(dx, dy) < still) return
    if (!turns) {
      event.currentTarget.setPointerCapture(event.pointerId)
      onTurning(true)
    }
    held.current = [event.clientX, event.clientY]
    set(event.shiftKey || (event.buttons & 6) > 0 ? shifted(now.current, dx, dy) : turned(now.current, -dx / 2, dy / 2))
  }
  const up = () => {
    if (held.current) onTurning(false)
    held.current = undefined
  }
  const key = (event: KeyboardEvent) => {
    if (event.ctrlKey || event.metaKey || event.target !== event.currentTarget) return
    const arrows: Record<string, [number, number]> = { ArrowLeft: [1, 0], ArrowRight: [-1, 0], ArrowUp: [0, 1], ArrowDown: [0, -1] }
    const arrow = arrows[event.key]
    const middle = [width / 2, height / 2] as const
    if (arrow && event.shiftKey) set(shifted(look, arrow[0] * 20, arrow[1] * 20))
    else if (arrow) set(turned(look, arrow[0] * step, arrow[1] * step))
    else if (event.key === '+' || event.key === '=') set(nearer(look, 1.25, middle, width, height))
    else if (event.key === '-') set(nearer(look, 0.8, middle, width, height))
    else if (event.key === 'Home') onFit()
    else return
    event.preventDefault()
  }
  return (
    // a drawing that is turned by pointer and arrow keys has to take the focus
    // eslint-disable-next-line jsx-a11y/no-noninteractive-element-interactions
    <div
      ref={frame}
      className={painting ? 'pictorial painting' : 'pictorial'}
      role="application"
      // eslint-disable-next-line jsx-a11y/no-noninteractive-tabindex
      tabIndex={0}
      aria-label={name}
      data-azimuth={Math.round(look.azimuth)}
      data-elevation={Math.round(look.elevation)}
      onPointerDown={down}
      onPointerMove={move}
      onPointerUp={up}
      onPointerCancel={up}
      onKeyDown={key}
    >
      <Canvas
        orthographic
        frameloop="demand"
        dpr={1}
        linear
        flat
        gl={{ antialias: drawnWith() !== 'processor', powerPreference: 'high-performance' }}
      >
        <Camera look={look} width={width} height={height} />
        {children}
      </Canvas>
      <svg className="pictorial-letters" viewBox={`0 0 ${width} ${height}`} aria-hidden="true">
        {labels.map(({ at, text, kind }, i) => {
          const [x, y] = pictured(look, at, width, height)
          return (
            <g key={i} className={kind}>
              {kind !== 'axis' && <circle cx={x} cy={y} r="9" />}
              <text x={x} y={y + 4} textAnchor="middle">
                {text}
              </text>
            </g>
          )
        })}
      </svg>
    </div>
  )
}

const away = 5000

function Camera({ look, width, height }: { look: Look; width: number; height: number }) {
  const camera = useThree((state) => state.camera) as OrthographicCamera
  const invalidate = useThree((state) => state.invalidate)
  useLayoutEffect(() => {
    const { up, toward } = directionsOf(look)
    camera.left = -width / 2
    camera.right = width / 2
    camera.top = height / 2
    camera.bottom = -height / 2
    camera.zoom = look.scale
    camera.near = 0
    camera.far = 2 * away
    camera.position.set(...look.target).addScaledVector(new Vector3(...toward), away)
    camera.up.set(...up)
    camera.lookAt(...look.target)
    camera.updateProjectionMatrix()
    invalidate()
  }, [camera, look, width, height, invalidate])
  return null
}
