import { sayNotKept } from '../data/queries.ts'
import parts from '../parts/parts.module.css'
import { PhotoPicker, sendPhoto } from './PhotoPicker.tsx'
import { useJobData } from './useJobData.ts'
import type { Observations } from './useObservations.ts'

/** The picture of something observed, and how another is taken. */
export function SeenPicture({
  of: key,
  title,
  seen,
  className = '',
}: {
  of: string
  title: string
  seen: Observations
  className?: string | undefined
}) {
  const { job, photos } = useJobData()
  const photo = photos.find((p) => p.id === seen.of(key)?.photoId)
  return (
    <>
      <PhotoPicker
        files={[]}
        onChange={([file]) => {
          if (file) sendPhoto(job.id, file, title).then((photoId) => seen.set(key, { photoId }), sayNotKept)
        }}
      />
      {photo && <img src={`/api/photos/${photo.id}/screen`} alt={title} className={`${parts.photo} ${className}`} />}
    </>
  )
}
