import type { RingSound } from '~~/shared/calling'

let audio: AudioContext | null = null

/** A note: when it begins, in seconds from now, its pitch in hertz, and how long it lasts, in seconds. */
interface Note { at: number, pitch: number, lasts: number }

/** Two soft notes when a text comes in. Made here, so that no sound file has to be loaded. */
export const chime = () => play([{ at: 0, pitch: 587.33, lasts: 0.5 }, { at: 0.12, pitch: 880, lasts: 0.5 }])

/** A call that rings, as its line sounds: notes one after the other, and the whole of it twice. */
const RINGS: Record<RingSound, { pitches: number[], step: number, lasts: number }> = {
  quick: { pitches: [659.25, 783.99, 659.25, 783.99], step: 0.09, lasts: 0.25 },
  low: { pitches: [293.66, 220], step: 0.22, lasts: 0.45 },
  bell: { pitches: [1046.5, 1318.51, 1567.98], step: 0.14, lasts: 0.6 },
}

export const ring = (sound: RingSound = 'quick') => play([0, 0.7].flatMap(start =>
  RINGS[sound].pitches.map((pitch, place) => ({ at: start + place * RINGS[sound].step, pitch, lasts: RINGS[sound].lasts }))))

function play(notes: Note[]): void {
  // before anybody has touched the page a browser lets nothing sound
  if (!navigator.userActivation?.hasBeenActive) return
  audio ??= new AudioContext()
  for (const { at: after, pitch, lasts } of notes) {
    const at = audio.currentTime + after
    const tone = new OscillatorNode(audio, { frequency: pitch, type: 'sine' })
    const volume = new GainNode(audio, { gain: 0 })
    volume.gain.setValueAtTime(0, at)
    volume.gain.linearRampToValueAtTime(0.06, at + 0.02)
    volume.gain.exponentialRampToValueAtTime(0.0001, at + lasts)
    tone.connect(volume).connect(audio.destination)
    tone.start(at)
    tone.stop(at + lasts)
  }
}
