import wavefile from 'wavefile'
import { peaksOf } from '~~/core/sound/peaks'

/** As many as a timeline has room for. */
const BARS = 240
/** Half an hour at 8 bits, 8,000 samples a second, and more than enough of anything else. */
const MOST_BYTES = 16_000_000

/** How long a sound is and what shape it has; null for what is no WAV file that telephones make, whatever it says of itself. */
export function readSound(bytes: Buffer): { ms: number, peaks: number[] } | null {
  if (bytes.length > MOST_BYTES) return null
  try {
    const wave = new wavefile.WaveFile(bytes)
    const { sampleRate, numChannels } = wave.fmt as { sampleRate: number, numChannels: number }
    const samples = samplesOf(wave.bitDepth, (wave.data as { samples: Uint8Array }).samples)
    return samples && { ms: Math.round(samples.length / numChannels / sampleRate * 1_000), peaks: peaksOf(samples, BARS) }
  }
  catch {
    return null
  }
}

/** From -1 to 1, all channels among each other. By hand: the package takes seconds for a minute, and everybody would wait for it. */
function samplesOf(bitDepth: string, bytes: Uint8Array): Float32Array | null {
  if (bitDepth === '16')
    return scaled(new Int16Array(new Uint8Array(bytes).buffer, 0, Math.floor(bytes.length / 2)), sample => sample / 32_768)
  if (bitDepth === '8') return scaled(bytes, sample => (sample - 128) / 128)
  if (bitDepth !== '8m' && bitDepth !== '8a') return null
  const table = companded(bitDepth)
  return scaled(bytes, sample => table[sample]! / 32_768)
}

function scaled(from: Uint8Array | Int16Array, scale: (sample: number) => number): Float32Array {
  const samples = new Float32Array(from.length)
  for (let i = 0; i < from.length; i++) samples[i] = scale(from[i]!)
  return samples
}

/** What each of the 256 bytes stands for, of the two laws of ITU-T G.711, as the package has them. */
function companded(law: '8m' | '8a'): number[] {
  const wave = new wavefile.WaveFile()
  wave.fromScratch(1, 8_000, law, Uint8Array.from({ length: 256 }, (_, byte) => byte))
  if (law === '8m') wave.fromMuLaw()
  else wave.fromALaw()
  return Array.from(wave.getSamples(false, Int16Array) as unknown as Int16Array)
}
