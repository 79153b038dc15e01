/** Two short notes; a browser that makes no sound yet stays silent, the alarm stays in sight. */
export function ring(): void {
  const context = new AudioContext()
  const gain = context.createGain()
  gain.gain.value = 0.15
  gain.connect(context.destination)
  for (const [at, pitch] of [
    [0, 660],
    [0.25, 880],
  ] as const) {
    const note = context.createOscillator()
    note.frequency.value = pitch
    note.connect(gain)
    note.start(context.currentTime + at)
    note.stop(context.currentTime + at + 0.2)
  }
  setTimeout(() => void context.close(), 1_000)
}
