import { createQuerySerializer } from 'openapi-fetch'

import type { AskedOfSimulation } from './client'

const part = encodeURIComponent
const query = createQuerySerializer()

/** Where sounds, files and news lie that the browser fetches by itself. */
export const addresses = {
  plan: (job: string) => `/api/jobs/${job}/plan`,
  news: (job: string) => `/api/jobs/${job}/news`,
  toolTone: (level: number, frequency: number) => `/api/tools/tone.wav?level=${level}&frequency=${frequency}`,
  toolTimecode: (start: string, fps: string) =>
    `/api/tools/timecode.wav?start=${encodeURIComponent(start)}&fps=${encodeURIComponent(fps)}`,
  tone: (job: string) => `/api/jobs/${job}/tone.wav`,
  recording: (job: string, id: string) => `/api/jobs/${job}/recordings/${id}/sound`,
  simulated: (job: string, track: string, point: number, asked: AskedOfSimulation, state: number) =>
    `/api/jobs/${job}/simulation/${part(track)}/points/${point}/sound.wav?${query(asked)}&state=${state}`,
  clip: (job: string, file: string, at: number, span: number, offset: number) =>
    `/api/jobs/${job}/sync/clips/${file}/heard.wav?at_s=${at}&span_s=${span}&offset=${offset}`,
  together: (job: string, picture: string, byEar: boolean) =>
    `/api/jobs/${job}/files/together.wav?picture=${encodeURIComponent(picture)}&by_ear=${byEar}`,
  still: (job: string, file: string, frame: number) =>
    `/api/jobs/${job}/sync/files/${file}/still.jpg?frame=${Math.max(0, Math.floor(frame) || 0)}`,
  syncedCopy: (job: string, file: string, stretch: boolean) =>
    `/api/jobs/${job}/sync/clips/${file}/aligned.wav?stretch=${stretch}`,
  timeline: (job: string, line: number, kind: string) =>
    `/api/jobs/${job}/sync/timelines/${line}/export.${kind}`,
  piecePhoto: (piece: string) => `/api/trunk/pieces/${piece}/photo`,
  earSound: (session: string, trial: number, which: number) =>
    `/api/ear/${session}/pairs/${trial}/${which}.wav`,
  drillSound: (drill: string, probe: string, track: number) =>
    `/api/drills/${drill}/sound.wav?probe=${part(probe)}&track=${track}`,
  classFile: (id: string) => `/api/equipment/${part(id)}/file`,
  allClasses: '/api/equipment-archive',
  backup: (name: string) => `/api/copies/${part(name)}`,
  everything: '/api/everything',
  certificate: '/api/certificate',
}
