import { computed, onBeforeUnmount, onMounted, ref } from 'vue'

import { ApiProblem, api, wordsOf, type Photo, type PhotoOf } from '@/api/client'
import { newId } from '@/api/ids'
import { usePolling } from '@/composables/usePolling'
import { drop, kept, nextOrder, put, type Kept } from '@/stores/outbox'
import { useSettings } from '@/stores/settings'

const LOOK_MS = 5000 // while some wait for a connection
const LONGEST_SIDE = 1280 // as the program keeps them: what waits here has to fit as well
const QUALITY = 0.8

interface KeptPhoto extends Kept {
  readonly of: PhotoOf
  readonly what: string
  readonly picture: string // as a data address
}
/** A photograph as it is shown, whether it has been delivered or waits here. */
export interface ShownPhoto extends Pick<Photo, 'id' | 'take' | 'device' | 'what' | 'text'> {
  readonly src: string
  readonly waits: boolean
}

async function shrunk(file: Blob): Promise<string> {
  const picture = await createImageBitmap(file, { imageOrientation: 'from-image' })
  const scale = Math.min(1, LONGEST_SIDE / Math.max(picture.width, picture.height))
  const canvas = document.createElement('canvas')
  canvas.width = Math.round(picture.width * scale)
  canvas.height = Math.round(picture.height * scale)
  canvas.getContext('2d')?.drawImage(picture, 0, 0, canvas.width, canvas.height)
  picture.close()
  return canvas.toDataURL('image/jpeg', QUALITY)
}

function blobOf(address: string): Blob {
  const bytes = atob(address.slice(address.indexOf(',') + 1))
  return new Blob([Uint8Array.from(bytes, (letter) => letter.charCodeAt(0))], { type: 'image/jpeg' })
}

/** Photographs of settings: made small on this telephone, kept until the program has them, removed again. */
export function usePhotos(
  job: () => string,
  photos: () => readonly Photo[],
  look: () => Promise<void> | void,
) {
  const settings = useSettings()
  const problem = ref('')
  const box = () => `photos-${job()}`
  const shown = computed<ShownPhoto[]>(() => {
    const there = photos().map((photo) => ({
      ...photo,
      src: `/api/jobs/${job()}/log/photos/${photo.id}`,
      waits: false,
    }))
    const known = new Set(there.map(({ id }) => id))
    const waiting = kept<KeptPhoto>(box()).filter(({ id }) => !known.has(id))
    return [
      ...there,
      ...waiting.map(({ of, id, what, picture }) => ({ ...of, id, what, src: picture, waits: true })),
    ]
  })

  async function deliver() {
    for (const photo of kept<KeptPhoto>(box())) {
      try {
        await api.addPhoto(job(), photo.of, blobOf(photo.picture))
        drop(photo)
        void look()
      } catch (error) {
        if (!(error instanceof ApiProblem)) return // no connection: it waits
        problem.value = wordsOf(error)
        if (error.status < 500) drop(photo) // it will not be taken
        return
      }
    }
  }
  const delivering = usePolling(deliver, LOOK_MS)

  async function take(file: Blob, of: Pick<PhotoOf, 'take' | 'device' | 'text'>, what: string) {
    problem.value = ''
    try {
      const picture = await shrunk(file)
      const id = newId()
      const whole = { ...of, id, made: new Date().toISOString(), who: settings.who }
      put<KeptPhoto>({ box: box(), id, order: nextOrder(), of: whole, what, picture })
      void delivering.now()
    } catch {
      problem.value = 'This photograph cannot be read here: take it as JPEG.'
    }
  }
  async function remove(photo: ShownPhoto) {
    const waiting = kept<KeptPhoto>(box()).find(({ id }) => id === photo.id)
    if (waiting) drop(waiting)
    if (photo.waits) return
    try {
      await api.removePhoto(job(), photo.id)
      void look()
    } catch (error) {
      problem.value = wordsOf(error)
    }
  }
  onMounted(() => window.addEventListener('online', delivering.now))
  onBeforeUnmount(() => window.removeEventListener('online', delivering.now))
  return { shown, problem, take, remove }
}
