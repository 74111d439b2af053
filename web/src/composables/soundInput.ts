import collector from './collectSound.js?url&no-inline'

/** What comes in through the computer's sound input, as it is: nothing is made quieter, cleaner or smaller on the way. */

const RAW = { echoCancellation: false, noiseSuppression: false, autoGainControl: false }

/** Whether this page may ask for it: browsers offer it on this machine and over https alone. */
export const hasSoundInput = () => Boolean(navigator.mediaDevices) && 'AudioWorkletNode' in globalThis

/** So many seconds of it as a WAV, and the moment at which they ended. */
export async function takeSound(seconds: number): Promise<{ sound: Blob; ended: Date }> {
  const input = await navigator.mediaDevices.getUserMedia({ audio: RAW })
  const context = new AudioContext()
  try {
    await context.audioWorklet.addModule(collector)
    const node = new AudioWorkletNode(context, 'collect-sound')
    const blocks: Float32Array[] = []
    const wanted = Math.round(seconds * context.sampleRate)
    const ended = new Promise<Date>((done) => {
      let taken = 0
      node.port.onmessage = ({ data }: MessageEvent<Float32Array>) => {
        if (taken >= wanted) return
        blocks.push(data)
        taken += data.length
        if (taken >= wanted) done(new Date())
      }
    })
    context.createMediaStreamSource(input).connect(node)
    const moment = await ended
    return { sound: wavOf(blocks, context.sampleRate), ended: moment }
  } finally {
    input.getTracks().forEach((track) => track.stop())
    await context.close()
  }
}

/** Mono, 16 bit. */
export function wavOf(blocks: readonly Float32Array[], rate: number): Blob {
  const count = blocks.reduce((sum, block) => sum + block.length, 0)
  const view = new DataView(new ArrayBuffer(44 + 2 * count))
  const text = (at: number, word: string) =>
    [...word].forEach((c, n) => view.setUint8(at + n, c.charCodeAt(0)))
  text(0, 'RIFF')
  view.setUint32(4, 36 + 2 * count, true)
  text(8, 'WAVEfmt ')
  view.setUint32(16, 16, true)
  view.setUint16(20, 1, true)
  view.setUint16(22, 1, true)
  view.setUint32(24, rate, true)
  view.setUint32(28, 2 * rate, true)
  view.setUint16(32, 2, true)
  view.setUint16(34, 16, true)
  text(36, 'data')
  view.setUint32(40, 2 * count, true)
  let at = 44
  for (const block of blocks)
    for (const sample of block) {
      view.setInt16(at, Math.round(Math.max(-1, Math.min(1, sample)) * 32_767), true)
      at += 2
    }
  return new Blob([view.buffer], { type: 'audio/wav' })
}
