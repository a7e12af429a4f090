import wavefile from 'wavefile'

const RATE = 8_000
/** Longer ones are cut: it is only made up. */
const MOST_MS = 600_000

/**
 * Something that has the shape of people talking: syllables of a deep and a high voice in turns, with pauses between
 * them. The same for a call each time. A WAV file of 8,000 samples a second, one channel, 8 bits.
 */
export function madeUpSound(seed: string, ms: number, voices: 1 | 2): Buffer {
  let state = [...seed].reduce((hash, char) => Math.imul(hash ^ char.charCodeAt(0), 0x01000193) >>> 0, 0x811C9DC5)
  const random = () => (state = (Math.imul(state, 1_664_525) + 1_013_904_223) >>> 0) / 4_294_967_296
  const samples = new Uint8Array(Math.round(Math.min(ms, MOST_MS) / 1_000 * RATE)).fill(128)
  let voice = 0
  for (let at = RATE * 0.15; at < samples.length;) {
    const syllables = 4 + Math.floor(random() * 12)
    for (let one = 0; one < syllables; one++) {
      const length = RATE * (0.09 + random() * 0.14)
      const [pitch, loud] = [(voice === 0 ? 118 : 205) * (0.9 + random() * 0.25), 40 + random() * 70]
      for (let i = 0; i < length && at + i < samples.length; i++) {
        const [time, rise] = [i / RATE, Math.sin(Math.PI * i / length)]
        const wave
          = Math.sin(2 * Math.PI * pitch * time)
            + 0.5 * Math.sin(2 * Math.PI * pitch * 3 * time)
            + 0.25 * Math.sin(2 * Math.PI * pitch * 7 * time)
        samples[Math.floor(at + i)] = Math.round(128 + loud * rise * wave / 1.75)
      }
      at += length + RATE * random() * 0.05
    }
    at += RATE * (0.25 + random() * 0.6)
    if (voices === 2) voice = 1 - voice
  }
  const wave = new wavefile.WaveFile()
  wave.fromScratch(1, RATE, '8', samples)
  return Buffer.from(wave.toBuffer())
}

/** Milliseconds of a WAV file; null for what is none. */
export function lengthOf(sound: Buffer): number | null {
  try {
    const wave = new wavefile.WaveFile(sound)
    const { sampleRate, blockAlign } = wave.fmt as { sampleRate: number, blockAlign: number }
    const { chunkSize } = wave.data as { chunkSize: number }
    return Math.round(chunkSize / blockAlign / sampleRate * 1_000)
  }
  catch {
    return null
  }
}
