let audio: AudioContext | null = null

/** Two soft notes when a text comes in. Made here, so that no sound file has to be loaded. */
export function chime(): void {
  // before anybody has touched the page a browser lets nothing sound
  if (!navigator.userActivation?.hasBeenActive) return
  audio ??= new AudioContext()
  for (const [index, pitch] of [587.33, 880].entries()) {
    const at = audio.currentTime + index * 0.12
    const tone = new OscillatorNode(audio, { frequency: pitch, type: 'sine' })
    const volume = new GainNode(audio, { gain: 0 })
    volume.gain.setValueAtTime(0, at)
    volume.gain.linearRampToValueAtTime(0.06, at + 0.02)
    volume.gain.exponentialRampToValueAtTime(0.0001, at + 0.5)
    tone.connect(volume).connect(audio.destination)
    tone.start(at)
    tone.stop(at + 0.5)
  }
}
