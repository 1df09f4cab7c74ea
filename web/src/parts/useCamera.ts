import { useCallback, useEffect, useRef, useState, type RefCallback } from 'react'

export interface Camera {
  /** what shows its picture: one element at a time, another one later */
  video: RefCallback<HTMLVideoElement>
  /** live, refused or not there, or not yet asked for */
  state: 'off' | 'live' | 'none'
  start: () => void
  /** the picture of this moment, or null without a camera */
  take: () => Promise<Blob | null>
}

/** The camera beside the bench: live while the page is open; everything works without it. */
export function useCamera(): Camera {
  const shown = useRef<HTMLVideoElement | null>(null)
  const [stream, setStream] = useState<MediaStream | null>(null)
  const [none, setNone] = useState(false)
  useEffect(() => () => stream?.getTracks().forEach((track) => track.stop()), [stream])
  const video = useCallback(
    (element: HTMLVideoElement | null) => {
      shown.current = element
      if (element) element.srcObject = stream
    },
    [stream],
  )
  const start = () => {
    const devices = navigator.mediaDevices as MediaDevices | undefined
    if (!devices) {
      setNone(true)
      return
    }
    devices
      .getUserMedia({ video: { facingMode: 'environment', width: { ideal: 1920 } } })
      .then(setStream, () => setNone(true))
  }
  const take = async (): Promise<Blob | null> => {
    const from = shown.current
    if (!stream || !from || from.videoWidth === 0) return null
    const canvas = document.createElement('canvas')
    canvas.width = from.videoWidth
    canvas.height = from.videoHeight
    canvas.getContext('2d')?.drawImage(from, 0, 0)
    return new Promise((resolve) => canvas.toBlob(resolve, 'image/jpeg', 0.88))
  }
  return { video, state: stream ? 'live' : none ? 'none' : 'off', start, take }
}
