import { computed, ref } from 'vue'

/** By how many ms the server's clock is ahead of this device's; null: not measured yet. */
const ahead = ref<number | null>(null)
/** The header tells whole seconds, and an answer takes a moment: less than this is no difference. */
const NOISE = 2_000
/** An answer that took longer tells too little. */
const SLOW = 5_000
/** From here on it is said. */
const TELLING = 120_000

/** Measure this device's clock by an answer of the server, `sent` and `got` by the device's own. */
export function measureClock(answer: Response, sent: number, got: number): void {
  const told = Date.parse(answer.headers.get('Date') ?? '')
  if (Number.isNaN(told) || got - sent > SLOW) return
  const found = told + 500 - (sent + got) / 2
  ahead.value = Math.abs(found) < NOISE ? 0 : found
}

/** Now, by the server's clock as far as that is known. */
export const stampNow = (): string => new Date(Date.now() + (ahead.value ?? 0)).toISOString()
/** Whether times stamped now are corrected; else they are to be once it is known. */
export const isMeasured = (): boolean => ahead.value !== null
/** A time that was stamped before the clock was measured, corrected. */
export const corrected = (stamped: string): string =>
  new Date(Date.parse(stamped) + (ahead.value ?? 0)).toISOString()

/** How wrong this device's clock is, in words; empty: not worth a word. */
export const clockWords = computed(() => {
  const off = ahead.value ?? 0
  if (Math.abs(off) < TELLING) return ''
  const minutes = Math.round(Math.abs(off) / 60_000)
  const [count, unit] =
    minutes >= 2880
      ? [Math.round(minutes / 1440), 'days']
      : minutes >= 120
        ? [Math.round(minutes / 60), 'hours']
        : [minutes, 'minutes']
  return `${count} ${unit} ${off > 0 ? 'slow' : 'fast'}`
})
