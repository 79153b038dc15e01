import { computed, ref } from 'vue'
import type { Content, Problem, Schemas } from '@/shared/api/client'
import { asProblem, csrfToken, noConnection, retriable } from '@/shared/api/client'
import { newKey } from '@/shared/writing/newKey'

/** Something to be recorded: an entry of a batch, news of an act, a note. */
export type Letter = {
  key: string
  /** Sorts letters in the order in which they were written. */
  order: string
  path: string
  body: { content: Content; seen: number; corrects: number | null } | object
  /** What it is, in words: "5.72 lb for B". */
  words: string
  code: string
  mark: string
  at: string
  /** The key of a letter that this one takes back; its entry is not known before that has been sent. */
  undoes?: string
  /** Sent at least once: it may have arrived, so it stays as it is. */
  tried?: boolean
  /** Why it was refused: it waits for the cook. */
  problem?: Problem
}
type Answer = { entry?: number; batch?: Schemas['BatchOut'] }
type Entry = { content: Content; seen: number; corrects: number | null }

const STEM = 'dolmetsch:outbox:'
const letters = ref<Letter[]>(readAll())
const isSending = ref(false)
const lastTrouble = ref<Problem | null>(null)
const listeners = new Set<(letter: Letter, answer: Answer) => void>()
let count = 0

function readAll(): Letter[] {
  const found: Letter[] = []
  for (let place = 0; place < localStorage.length; place++) {
    const name = localStorage.key(place)
    if (!name?.startsWith(STEM)) continue
    try {
      found.push(JSON.parse(localStorage.getItem(name) ?? '') as Letter)
    } catch {
      // half a letter is none
    }
  }
  return found.sort((one, other) => (one.order < other.order ? -1 : 1))
}

/** Each letter lies under a name of its own, so that two pages of one device never overwrite each other. */
function keep(letter: Letter): void {
  localStorage.setItem(STEM + letter.order, JSON.stringify(letter))
  letters.value = readAll()
}
function drop(letter: Letter): void {
  localStorage.removeItem(STEM + letter.order)
  letters.value = readAll()
}

export const isEntry = (body: object): body is Entry => 'content' in body && 'seen' in body

/** How many entries of a batch wait to be sent: each will move the batch on by one. */
const waitingIn = (code: string): number =>
  letters.value.filter((letter) => letter.code === code && isEntry(letter.body)).length

/** Write a letter and send it as soon as it can be. */
export function post(told: Omit<Letter, 'key' | 'order' | 'at'>): Letter {
  const body = isEntry(told.body) ? { ...told.body, seen: told.body.seen + waitingIn(told.code) } : told.body
  const order = `${String(Date.now()).padStart(15, '0')}-${String(count++).padStart(5, '0')}`
  const letter = { ...told, body, key: newKey(), order, at: new Date().toISOString() }
  keep(letter)
  void send()
  return letter
}

async function ask(letter: Letter): Promise<{ answer?: Answer; problem?: Problem }> {
  let response: Response
  try {
    response = await fetch(letter.path, {
      method: 'POST',
      headers: {
        'Content-Type': 'application/json',
        'Idempotency-Key': letter.key,
        'X-CSRFToken': csrfToken(),
      },
      body: JSON.stringify(letter.body),
    })
  } catch {
    return { problem: noConnection }
  }
  const told: unknown = await response.json().catch(() => null)
  if (response.ok) return { answer: (told ?? {}) as Answer }
  return { problem: asProblem(told, response.status) }
}

/** Send what waits, in order, once each; what a batch refuses holds back that batch's other letters. */
export async function send(): Promise<void> {
  if (isSending.value) return
  isSending.value = true
  try {
    const lock = (navigator as { locks?: LockManager }).locks
    if (lock) await lock.request('dolmetsch-outbox', sendAll)
    else await sendAll()
  } finally {
    isSending.value = false
  }
}

async function sendAll(): Promise<void> {
  const held = new Set(readAll().flatMap((letter) => (letter.problem ? [letter.code] : [])))
  letters.value = readAll()
  for (;;) {
    const next = readAll().find((letter) => !letter.problem && !held.has(letter.code))
    if (!next) break
    const letter = { ...next, tried: true }
    keep(letter)
    const { answer, problem } = await ask(letter)
    if (answer) {
      arrived(letter, answer)
    } else if (problem && retriable.has(problem.code)) {
      lastTrouble.value = problem
      return
    } else {
      keep({ ...letter, problem: problem ?? noConnection })
      held.add(letter.code)
    }
  }
  lastTrouble.value = null
}

function arrived(letter: Letter, answer: Answer): void {
  lastTrouble.value = null
  if (answer.entry !== undefined) {
    for (const later of readAll()) {
      if (later.undoes !== letter.key || !isEntry(later.body)) continue
      const body = { ...later.body, corrects: answer.entry }
      const known = { ...later, body }
      delete known.undoes
      keep(known)
    }
  }
  drop(letter)
  listeners.forEach((listener) => listener(letter, answer))
}

/** Record a refused entry all the same, on top of what the batch has come to (`seen`). */
export function insist(letter: Letter, seen: number): void {
  const rest = { ...letter }
  delete rest.problem
  delete rest.tried
  const waiting = readAll().filter((one) => one.code === letter.code && isEntry(one.body) && !one.problem)
  const body = isEntry(rest.body) ? { ...rest.body, seen } : rest.body
  // it was refused, so it was not recorded: a changed body takes a new key
  const key = newKey()
  for (const one of waiting) if (one.undoes === letter.key) keep({ ...one, undoes: key })
  keep({ ...rest, body, key })
  waiting.forEach((one, place) => {
    const kept = readAll().find((same) => same.order === one.order)
    if (kept && isEntry(kept.body)) keep({ ...kept, body: { ...kept.body, seen: seen + 1 + place } })
  })
  void send()
}

/** Let go of a refused letter, and of what would have taken it back. */
export function discard(letter: Letter): void {
  for (const later of readAll()) if (later.undoes === letter.key) drop(later)
  drop(letter)
  void send()
}

/** Call `listener` whenever a letter has arrived. */
export function onArrived(listener: (letter: Letter, answer: Answer) => void): () => void {
  listeners.add(listener)
  return () => listeners.delete(listener)
}

window.addEventListener('storage', (event) => {
  if (event.key === null || event.key.startsWith(STEM)) letters.value = readAll()
})
window.addEventListener('online', () => void send())
setInterval(() => {
  if (letters.value.some((letter) => !letter.problem)) void send()
}, 3000)

/** What waits on this device, what was refused, and why nothing goes out. */
export function useOutbox() {
  return {
    letters,
    waiting: computed(() => letters.value.filter((letter) => !letter.problem)),
    refused: computed(() => letters.value.filter((letter) => letter.problem)),
    trouble: lastTrouble,
  }
}
