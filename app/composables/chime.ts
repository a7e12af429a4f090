let audio: AudioContext | null = null

/** A note: when it begins, in seconds from now, its pitch in hertz, and how long it lasts, in seconds. */
interface Note { at: number, pitch: number, lasts: number }

/** Two soft notes when a text comes in. Made here, so that no sound file has to be loaded. */
export const chime = () => play([{ at: 0, pitch: 587.33, lasts: 0.5 }, { at: 0.12, pitch: 880, lasts: 0.5 }])

/** A call that rings: a run of quick notes, twice. */
export const ring = () => play([0, 0.7].flatMap(start =>
  [0, 1, 2, 3].map(step => ({ at: start + step * 0.09, pitch: step % 2 === 0 ? 659.25 : 783.99, lasts: 0.25 }))))

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
