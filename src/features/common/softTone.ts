/** A soft sound of a second: two low sines that fade. Silent where the browser allows no sound before a first press. */
export function softTone(): void {
  try {
    const audio = new AudioContext();
    const gain = audio.createGain();
    gain.gain.setValueAtTime(0.0001, audio.currentTime);
    gain.gain.exponentialRampToValueAtTime(0.12, audio.currentTime + 0.08);
    gain.gain.exponentialRampToValueAtTime(0.0001, audio.currentTime + 1.1);
    gain.connect(audio.destination);
    for (const hertz of [440, 554]) {
      const tone = audio.createOscillator();
      tone.frequency.value = hertz;
      tone.connect(gain);
      tone.start();
      tone.stop(audio.currentTime + 1.2);
    }
    setTimeout(() => void audio.close(), 1500);
  } catch {
    // No sound device: the clock itself still says it.
  }
}
