import wavefile from 'wavefile'
import { readSound } from '~~/server/calling/sound'

/** A tone that grows from silence to half as loud as can be, a second long. */
const TONE = Int16Array.from({ length: 8_000 }, (_, i) => Math.sin(i / 3) * 16_384 * i / 8_000)

function wav(bitDepth: string, channels = 1): Buffer {
  const wave = new wavefile.WaveFile()
  wave.fromScratch(channels, 8_000, '16', channels === 1 ? TONE : [TONE, TONE])
  if (bitDepth === '8m') wave.toMuLaw()
  else if (bitDepth === '8a') wave.toALaw()
  else wave.toBitDepth(bitDepth)
  return Buffer.from(wave.toBuffer())
}

describe('a sound as telephones have it', () => {
  it.each([['16', 1], ['16', 2], ['8', 1], ['8m', 1], ['8a', 1]])('is read from %s with %i channels', (bitDepth, channels) => {
    const { ms, peaks } = readSound(wav(bitDepth, channels))!
    expect([ms, peaks.length]).toEqual([1_000, 240])
    expect(peaks[0]).toBeLessThan(0.03)
    expect(peaks.at(-1)).toBeGreaterThan(0.46)
    expect(Math.max(...peaks)).toBeLessThan(0.52)
  })

  it.each([
    ['words', Buffer.from('no sound at all')],
    ['nothing', Buffer.alloc(0)],
    ['24 bits, which no telephone has', wav('24')],
    ['a heading alone', wav('16').subarray(0, 30)],
  ])('is none in %s', (_, bytes) => {
    expect(readSound(bytes)).toBeNull()
  })
})
