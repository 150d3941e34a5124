let speaker: AudioContext | null = null;

/** A short tone for one beat; a lower one once the clicks are through. Silent where sound is not allowed. */
export function sounded(isWithin: boolean) {
  try {
    speaker ??= new AudioContext();
    const tone = speaker.createOscillator();
    const volume = speaker.createGain();
    tone.frequency.value = isWithin ? 880 : 440;
    volume.gain.setValueAtTime(0.25, speaker.currentTime);
    volume.gain.exponentialRampToValueAtTime(0.001, speaker.currentTime + 0.07);
    tone.connect(volume).connect(speaker.destination);
    tone.start();
    tone.stop(speaker.currentTime + 0.08);
  } catch {
    // the eye has the beat as well
  }
}
