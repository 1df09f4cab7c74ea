import { createContext, useCallback, useContext, useEffect, useMemo, useRef, useState, type ReactNode } from 'react'
import { useSettings } from '../data/queries.ts'
import { chirp } from './chirp.ts'
import { useLatest } from '../parts/useLatest.ts'
import { pedalKey } from './pedalKey.ts'
import { TakeBacks } from './takeBacks.ts'

/** The one next action of a work surface. */
export interface PedalAction {
  /** what a press does now, in large words */
  label: string
  hint?: string
  /** does it; `atMs` is when the foot came down. What it returns takes it back. */
  press: (atMs: number) => (() => void) | void
  /** marks this for later */
  flag?: () => void
  /** what a hold does instead of taking back: it is told as the foot has been down long enough, and as it comes up */
  held?: { label: string; while: (on: boolean) => void }
  /** pressed in the rhythm of a pendulum: each press counts at once, and two are not a double press */
  rhythmic?: boolean
}

interface PedalState {
  action: PedalAction | null
  /** a field has focus: the pedal is still, and what is typed goes on by Enter */
  typing: boolean
  held: boolean
  said: string
  /** the foot comes down, and up; at the event’s own time, ms: a busy page hears of it late */
  down: (stampMs: number) => void
  up: (stampMs: number) => void
}

/** How a surface says what the pedal does: apart from what the bar shows, so that a press draws no surface anew. */
interface PedalSetters {
  setAction: (action: PedalAction | null) => void
  setOnward: (action: PedalAction | null) => void
}

const HOLD_MS = 600
const DOUBLE_MS = 320
/** A page that was too busy to hear the foot come up is given so long to hear it before a press is taken for a hold. */
const LATE_MS = 100
const Context = createContext<PedalState | null>(null)
const Setters = createContext<PedalSetters | null>(null)

export function PedalProvider({ children }: { children: ReactNode }) {
  const [own, setAction] = useState<PedalAction | null>(null)
  const [onward, setOnward] = useState<PedalAction | null>(null)
  const action = own ?? onward
  const typing = useTyping()
  const [held, setHeld] = useState(false)
  const [said, setSaid] = useState('')
  const { data: settings } = useSettings()
  const sounds = settings?.pedalSound ?? true
  const now = useLatest(action)
  const undoing = useRef(new TakeBacks())
  const downAt = useRef<{ atMs: number; stampMs: number } | null>(null)
  const holdTimer = useRef(0)
  const pressTimer = useRef(0)

  const holding = useRef(false)
  const takeBack = useCallback(() => {
    setHeld(false)
    const undo = undoing.current.last(window.location.pathname)
    setSaid(undo ? 'Taken back.' : 'There is nothing to take back here.')
    if (sounds) chirp(undo ? 'back' : 'none')
    undo?.()
  }, [sounds])

  const longDown = useCallback(() => {
    downAt.current = null
    const held = now.current?.held
    if (held) {
      holding.current = true
      held.while(true)
    } else takeBack()
  }, [takeBack, now])

  const press = useCallback(
    (atMs: number) => {
      const doing = now.current
      if (!doing) return
      if (sounds) chirp('done')
      // Where the foot came down: a press may lead elsewhere.
      const here = window.location.pathname
      const undo = doing.press(atMs)
      if (undo) undoing.current.add(here, undo)
      setSaid('')
    },
    [sounds, now],
  )

  const down = useCallback(
    (stampMs: number) => {
      if (downAt.current !== null || holding.current || !now.current) return
      downAt.current = { atMs: Date.now() - lateBy(stampMs), stampMs }
      setHeld(true)
      // What was said of an earlier press is not this one's.
      setSaid('')
      holdTimer.current = window.setTimeout(() => {
        if (lateBy(stampMs) < HOLD_MS + LATE_MS) longDown()
        else holdTimer.current = window.setTimeout(longDown, LATE_MS)
      }, HOLD_MS)
    },
    [longDown, now],
  )

  const up = useCallback(
    (stampMs: number) => {
      window.clearTimeout(holdTimer.current)
      setHeld(false)
      if (holding.current) {
        holding.current = false
        now.current?.held?.while(false)
        return
      }
      const foot = downAt.current
      downAt.current = null
      const doing = now.current
      if (foot === null || !doing) return
      if (stampMs - foot.stampMs >= HOLD_MS) {
        if (!doing.held) takeBack()
        return
      }
      const at = foot.atMs
      if (!doing.flag || doing.rhythmic) {
        press(at)
        return
      }
      if (pressTimer.current !== 0) {
        window.clearTimeout(pressTimer.current)
        pressTimer.current = 0
        doing.flag()
        setSaid('Flagged for later.')
        if (sounds) chirp('flag')
        return
      }
      pressTimer.current = window.setTimeout(() => {
        pressTimer.current = 0
        press(at)
      }, DOUBLE_MS)
    },
    [press, takeBack, sounds, now],
  )

  useEffect(() => {
    const isPedal = (event: KeyboardEvent) =>
      event.key === 'PageDown' || event.key === pedalKey() || (event.key === ' ' && isNowhere(event.target))
    const onDown = (event: KeyboardEvent) => {
      if (!isPedal(event) || isField(event.target) || !now.current) return
      event.preventDefault()
      if (!event.repeat) down(event.timeStamp)
    }
    const onUp = (event: KeyboardEvent) => {
      if (!isPedal(event) || (downAt.current === null && !holding.current)) return
      event.preventDefault()
      up(event.timeStamp)
    }
    window.addEventListener('keydown', onDown)
    window.addEventListener('keyup', onUp)
    return () => {
      window.removeEventListener('keydown', onDown)
      window.removeEventListener('keyup', onUp)
    }
  }, [down, up, now])

  const value = useMemo(() => ({ action, typing, held, said, down, up }), [action, typing, held, said, down, up])
  const setters = useMemo(() => ({ setAction, setOnward }), [])
  return (
    <Setters.Provider value={setters}>
      <Context.Provider value={value}>{children}</Context.Provider>
    </Setters.Provider>
  )
}

/** How long ago something happened, by its event’s own time, ms. */
function lateBy(stampMs: number): number {
  return Math.max(0, performance.now() - stampMs)
}

/** Whether a field has focus, so that a key is text and no press. */
function useTyping(): boolean {
  const [typing, setTyping] = useState(false)
  useEffect(() => {
    const look = () => setTyping(isField(document.activeElement))
    // Between two fields focus is nowhere for a moment.
    const later = () => queueMicrotask(look)
    window.addEventListener('focusin', look)
    window.addEventListener('focusout', later)
    return () => {
      window.removeEventListener('focusin', look)
      window.removeEventListener('focusout', later)
    }
  }, [])
  return typing
}

/** Whether a key typed there is text: the pedal and the letter keys are still then. */
export function isField(target: EventTarget | null): boolean {
  return (
    target instanceof HTMLElement &&
    (target.isContentEditable ||
      (/^(INPUT|TEXTAREA|SELECT)$/.test(target.tagName) &&
        !/^(checkbox|radio|button)$/.test((target as HTMLInputElement).type)))
  )
}

/** Space counts only while focus is on no control, so that on a button it presses that button. */
function isNowhere(target: EventTarget | null): boolean {
  return target === document.body || (target instanceof HTMLElement && target.id === 'main')
}

export function usePedal(): PedalState {
  const state = useContext(Context)
  if (!state) throw new Error('The pedal is missing from this page.')
  return state
}

/** Makes `action` what the pedal does while this piece of a surface is shown; null leaves it to the others. */
export function usePedalAction(action: PedalAction | null): void {
  useShown(action, useSetters().setAction)
}

/** What a press does where the surface itself has nothing for the foot: on to the clock's next work. */
export function usePedalOnward(action: PedalAction | null): void {
  useShown(action, useSetters().setOnward)
}

function useSetters(): PedalSetters {
  const setters = useContext(Setters)
  if (!setters) throw new Error('The pedal is missing from this page.')
  return setters
}

function useShown(action: PedalAction | null, setAction: (action: PedalAction | null) => void): void {
  const latest = useLatest(action)
  const { label, hint, rhythmic, held } = action ?? {}
  const heldLabel = held?.label
  const flags = action?.flag !== undefined
  useEffect(() => {
    if (label === undefined) return
    setAction({
      label,
      hint,
      rhythmic,
      press: (atMs) => latest.current?.press(atMs),
      ...(flags && { flag: () => latest.current?.flag?.() }),
      ...(heldLabel !== undefined && {
        held: { label: heldLabel, while: (on: boolean) => latest.current?.held?.while(on) },
      }),
    })
    return () => setAction(null)
  }, [label, hint, rhythmic, flags, heldLabel, setAction, latest])
}
