import type { Track } from '@/api/client'

/** What is said of a track at the end of its row. */
export const VERDICTS: Readonly<Record<Track['verdict'], string>> = {
  clips: 'clips',
  silent: 'silent',
  'no-source': 'no source yet',
  stop: 'won’t work',
  check: 'check',
  ok: 'OK',
}
