import { Button, FileButton, Group } from '@mantine/core'
import { notifications } from '@mantine/notifications'
import { IconCamera, IconPhoto } from '@tabler/icons-react'
import { v7 as uuid } from 'uuid'
import { queryClient, sendAsChange, sentenceOf } from '../data/queries.ts'

/** Chooses photos from files, or from the camera where the device has one. */
export function PhotoPicker({ files, onChange }: { files: File[]; onChange: (files: File[]) => void }) {
  return (
    <Group mt="sm">
      <FileButton accept="image/jpeg,image/png,image/webp" multiple onChange={(more) => onChange([...files, ...more])}>
        {(props) => (
          <Button variant="default" leftSection={<IconPhoto size={20} />} {...props}>
            Photos
          </Button>
        )}
      </FileButton>
      <FileButton
        accept="image/jpeg,image/png,image/webp"
        capture="environment"
        onChange={(file) => file && onChange([...files, file])}
      >
        {(props) => (
          <Button variant="default" leftSection={<IconCamera size={20} />} {...props}>
            Camera
          </Button>
        )}
      </FileButton>
      <span className="quiet">{files.length === 0 ? 'JPEG, PNG or WebP' : files.map((f) => f.name).join(', ')}</span>
    </Group>
  )
}

/** Sends one photo and gives back its id; the page then asks for what it shows. */
export async function sendPhoto(jobId: string, photo: Blob, caption: string): Promise<string> {
  const id = uuid()
  const path = `/jobs/${jobId}/photos/${id}?caption=${encodeURIComponent(caption)}`
  await sendAsChange({ method: 'PUT', path, body: photo })
  void queryClient.invalidateQueries({ queryKey: ['job', jobId] })
  return id
}

/** Sends photos one after another; one that is refused is named and does not keep back the others. */
export async function sendPhotos(jobId: string, files: File[]): Promise<void> {
  for (const file of files) {
    try {
      await sendPhoto(jobId, file, file.name.replace(/\.\w+$/, ''))
    } catch (error) {
      notifications.show({
        color: 'red',
        title: `${file.name} was not kept`,
        message: sentenceOf(error),
        autoClose: 12_000,
      })
    }
  }
  await queryClient.invalidateQueries({ queryKey: ['job', jobId] })
}
