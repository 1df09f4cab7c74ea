import type { TiltAt } from '@treadle/core'
import { useEffect, useRef, useState } from 'react'

export interface Tilt {
  /** the device gives its tilt; unknown until the first reading */
  sensor: boolean | null
  /** what tells it now: the device, a level that is typed, or the practice clock’s slider */
  by: 'sensor' | 'level' | 'practice'
  nowDeg: number | null
  /** begins to write down, and asks the device's owner where it must */
  begin: () => void
  /** what was written down since, on the time of a recording that began at `startedMs` */
  log: (startedMs: number) => TiltAt[]
  /** how it stands is told by hand: this stands until the next one */
  tell: (by: 'level' | 'practice', deg: number) => void
  /** the device tells it again */
  bySensor: () => void
}

/** So long a device may take to say how it lies, ms; one without a sensor never does. */
const ASKED_MS = 1500

interface Asking {
  requestPermission?: () => Promise<'granted' | 'denied'>
}

/** How this device lies: left to right, + with its right side down, as it lies flat with its top to the wall. */
export function useTilt(): Tilt {
  const [sensor, setSensor] = useState<boolean | null>(null)
  const [nowDeg, setNowDeg] = useState<number | null>(null)
  const [by, setBy] = useState<Tilt['by']>('sensor')
  const written = useRef<{ atMs: number; tiltDeg: number }[]>([])
  const byNow = useRef<Tilt['by']>('sensor')
  const change = (next: Tilt['by']) => {
    if (byNow.current !== next) written.current = []
    byNow.current = next
    setBy(next)
  }
  useEffect(() => {
    const onTilt = ({ gamma }: DeviceOrientationEvent) => {
      if (gamma === null) return
      setSensor(true)
      if (byNow.current !== 'sensor') return
      setNowDeg(gamma)
      written.current.push({ atMs: Date.now(), tiltDeg: gamma })
    }
    window.addEventListener('deviceorientation', onTilt)
    const timer = window.setTimeout(() => setSensor((known) => known ?? false), ASKED_MS)
    return () => {
      window.removeEventListener('deviceorientation', onTilt)
      window.clearTimeout(timer)
    }
  }, [])
  return {
    sensor,
    by,
    nowDeg,
    begin: () => {
      written.current = written.current.slice(-1)
      // Some telephones ask their owner first, and only upon a press.
      const asking = (window as { DeviceOrientationEvent?: Asking }).DeviceOrientationEvent
      void asking?.requestPermission?.().catch(() => undefined)
    },
    log: (startedMs) => written.current.map(({ atMs, tiltDeg }) => ({ atS: (atMs - startedMs) / 1000, tiltDeg })),
    tell: (teller, deg) => {
      change(teller)
      setNowDeg(deg)
      written.current.push({ atMs: Date.now(), tiltDeg: deg })
    },
    bySensor: () => {
      change('sensor')
      setNowDeg(null)
    },
  }
}
