/** A short tone: high for a good pass, low for a bad one. */
export function chime(hertz: number, seconds: number): void {
  try {
    const audio = new AudioContext();
    const tone = audio.createOscillator();
    const gain = audio.createGain();
    gain.gain.value = 0.06;
    tone.frequency.value = hertz;
    tone.connect(gain).connect(audio.destination);
    tone.start();
    tone.stop(audio.currentTime + seconds);
    tone.onended = () => void audio.close();
  } catch {
    // A browser without sound shows the same in words.
  }
}
