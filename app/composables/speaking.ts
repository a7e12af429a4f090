/** Telephones carry no more than this. */
const RATE = 8_000

/**
 * Sound as telephones carry it: one channel, 8,000 samples a second of 16 bits, as a WAV file in base64.
 *
 * @param sound in any form that the browser can play
 * @throws Error if it cannot
 */
export async function telephoneSound(sound: Blob): Promise<{ base64: string, ms: number }> {
  const context = new AudioContext()
  try {
    const decoded = await context.decodeAudioData(await sound.arrayBuffer())
    const offline = new OfflineAudioContext(1, Math.max(1, Math.ceil(decoded.duration * RATE)), RATE)
    const source = offline.createBufferSource()
    source.buffer = decoded
    source.connect(offline.destination)
    source.start()
    const samples = (await offline.startRendering()).getChannelData(0)
    const { WaveFile } = await import('wavefile')
    const wave = new WaveFile()
    wave.fromScratch(1, RATE, '16', Int16Array.from(samples, sample => Math.max(-1, Math.min(1, sample)) * 32_767))
    return { base64: wave.toBase64(), ms: Math.round(decoded.duration * 1_000) }
  }
  finally {
    await context.close()
  }
}

/** Speaking into the microphone: for how long so far, and what was spoken once it is stopped. */
export function useSpeaking(spoken: (sound: Blob) => void) {
  const since = ref<number | null>(null)
  const problem = ref('')
  let recorder: MediaRecorder | null = null
  let gone = false

  async function begin(): Promise<void> {
    try {
      const stream = await navigator.mediaDevices.getUserMedia({ audio: true })
      // whoever went away before they allowed it is not listened to
      if (gone) return stream.getTracks().forEach(track => track.stop())
      recorder = new MediaRecorder(stream)
      const pieces: Blob[] = []
      recorder.ondataavailable = ({ data }) => void pieces.push(data)
      recorder.onstop = () => {
        for (const track of stream.getTracks()) track.stop()
        since.value = null
        spoken(new Blob(pieces, { type: recorder?.mimeType }))
      }
      recorder.start()
      since.value = Date.now()
      problem.value = ''
    }
    catch {
      problem.value = 'The microphone cannot be used. Allow it for this page, plug one in, or choose a file.'
    }
  }
  const end = () => recorder?.state === 'recording' && recorder.stop()
  onBeforeUnmount(() => {
    gone = true
    end()
  })

  return { since, problem, begin, end }
}
