import { useLocalStorage } from '@vueuse/core'

/** How a call sounds: chosen per tablet. */
export const sound = useLocalStorage('mabbin.sound', { tone: 'bell' as Tone, spoken: false })
export type Tone = 'bell' | 'knock' | 'off'

let audio: AudioContext | undefined
let last = 0
let said = ''

/** Rings, every few seconds, louder the longer a call waits; and says it, where that is wanted. */
export function ring(waitsMin: number, words: string) {
  const every = sound.value.spoken ? 9000 : 4000
  if (Date.now() - last < every || !navigator.userActivation?.hasBeenActive) return
  last = Date.now()
  const loud = Math.min(1, 0.25 + waitsMin / 4)
  if (sound.value.tone !== 'off') play(sound.value.tone, loud)
  if (sound.value.spoken && 'speechSynthesis' in window && (words !== said || waitsMin > 1)) {
    said = words
    const u = new SpeechSynthesisUtterance(words)
    u.volume = loud
    speechSynthesis.speak(u)
  }
}

/** Two strokes of a tone. */
export function play(tone: Tone, loud: number) {
  audio ??= new AudioContext()
  void audio.resume()
  const [pitch, long] = tone === 'bell' ? [1320, 0.9] : [220, 0.12]
  for (const at of [0, tone === 'bell' ? 0.45 : 0.22]) {
    const osc = audio.createOscillator()
    const gain = audio.createGain()
    const from = audio.currentTime + at
    osc.type = tone === 'bell' ? 'sine' : 'square'
    osc.frequency.value = pitch
    gain.gain.setValueAtTime(0.0001, from)
    gain.gain.exponentialRampToValueAtTime(loud, from + 0.01)
    gain.gain.exponentialRampToValueAtTime(0.0001, from + long)
    osc.connect(gain).connect(audio.destination)
    osc.start(from)
    osc.stop(from + long + 0.05)
  }
}
