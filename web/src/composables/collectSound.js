/* global registerProcessor, AudioWorkletProcessor */
// Hands on what comes in through the sound input, block by block. It runs beside the page, and can import nothing.
registerProcessor(
  'collect-sound',
  class extends AudioWorkletProcessor {
    process(inputs) {
      const channel = inputs[0]?.[0]
      if (channel) this.port.postMessage(channel.slice())
      return true
    }
  },
)
