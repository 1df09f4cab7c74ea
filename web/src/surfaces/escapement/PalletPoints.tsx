import type { EscapementSheetChange } from '@treadle/contract'
import { FieldError, palletsFromPhoto, unlessRefused, type Pixel, type Trueing } from '@treadle/core'
import { Button, Group } from '@mantine/core'
import { useState } from 'react'
import { RawPhoto } from '../../job/plates/RawPhoto.tsx'
import { TruePhoto } from '../../job/plates/TruePhoto.tsx'
import { useJobData } from '../../job/useJobData.ts'
import parts from '../../parts/parts.module.css'

type Taps = { arbors: Pixel[]; entry: Pixel[]; exit: Pixel[] }
const NONE: Taps = { arbors: [], entry: [], exit: [] }
const ASKS = {
  arbors: 'Tap the pallets’ arbor, then the wheel’s.',
  entry: 'Tap along the entry pallet’s faces (left, seen from the front), from deep inside to the edge a tooth leaves.',
  exit: 'Tap along the exit pallet’s faces, from deep inside to the edge a tooth leaves.',
}

/** Pallets of any kind by points over a photo, made true as the plates are. */
export function PalletPoints({
  sheet,
  onDone,
  onLeave,
}: {
  sheet: EscapementSheetChange
  onDone: (
    part: Pick<EscapementSheetChange, 'palletEntry' | 'palletExit' | 'centreDistanceMm' | 'photoId' | 'trueing'>,
  ) => void
  onLeave: () => void
}) {
  const { photos } = useJobData()
  const [photo, setPhoto] = useState<{ photoId: string | null; trueing: Trueing } | null>(null)
  const [taps, setTaps] = useState<Taps>(NONE)
  const [at, setAt] = useState<keyof Taps>('arbors')
  const row = photos.find((p) => p.id === photo?.photoId)
  if (!photo || !row)
    return (
      <TruePhoto
        of="pallets and their wheel"
        lay="Tap the pallets on it"
        before={{ photoId: sheet.photoId }}
        onLeave={onLeave}
        onDone={({ photoId, trueing }) => trueing && setPhoto({ photoId, trueing: trueing as Trueing })}
      />
    )
  const tap = (p: Pixel) => {
    const next = { ...taps, [at]: [...taps[at], p] }
    setTaps(next)
    if (at === 'arbors' && next.arbors.length === 2) setAt('entry')
  }
  const [pallets, wheel] = taps.arbors
  const made =
    pallets && wheel && taps.entry.length > 1 && taps.exit.length > 1
      ? unlessRefused(() => palletsFromPhoto(photo.trueing, [pallets, wheel], taps.entry, taps.exit))
      : null
  return (
    <div className={parts.columns}>
      <div>
        <RawPhoto photo={row} points={[...taps.arbors, ...taps.entry, ...taps.exit]} onTap={tap} />
      </div>
      <section>
        <h2>The pallets by points</h2>
        <p className={parts.say}>{ASKS[at]}</p>
        <p className="quiet">
          {taps.arbors.length} of 2 arbors, {taps.entry.length} points of the entry, {taps.exit.length} of the exit.
        </p>
        {made instanceof FieldError && <p role="alert">{made.message}.</p>}
        <Group mt="sm">
          {at === 'entry' && (
            <Button disabled={taps.entry.length < 2} onClick={() => setAt('exit')}>
              Now the exit pallet
            </Button>
          )}
          {at === 'exit' && (
            <Button
              disabled={!made || made instanceof FieldError}
              onClick={() =>
                made &&
                !(made instanceof FieldError) &&
                onDone({ ...made, photoId: photo.photoId, trueing: [...photo.trueing] })
              }
            >
              Draw them
            </Button>
          )}
          <Button variant="default" onClick={() => setTaps({ ...taps, [at]: taps[at].slice(0, -1) })}>
            Take back a point
          </Button>
          <Button variant="subtle" onClick={onLeave}>
            Leave it
          </Button>
        </Group>
      </section>
    </div>
  )
}
