import { computed, ref } from 'vue'
import type { Content, Problem } from '@/shared/api/client'
import { asProblem, csrfToken, noConnection, retriable, signedOut } from '@/shared/api/client'
import { cookHeader, ownerKey } from '@/shared/api/owner'
import { corrected, isMeasured, stampNow } from '@/shared/api/deviceClock'
import { patientFetch, SAY_SO } from '@/shared/api/patience'
import { newKey } from '@/shared/writing/newKey'

/** Something to be recorded: an entry of a batch, news of an act, a note. */
export type Letter = {
  key: string
  /** Whose it is, in which kitchen: only they send, see or discard it. */
  owner: string
  /** Sorts letters in the order in which they were written. */
  order: string
  path: string
  body: { content: Content; seen: number; corrects: number | null } | object
  /** What it is, in words: "5.72 lb for B". */
  words: string
  code: string
  mark: string
  at: string
  /** The times in it were stamped before the device's clock was measured: they are corrected as it is sent. */
  isUnmeasured?: boolean
  /** The key of a letter that this one takes back; its entry is not known before that has been sent. */
  undoes?: string
  /** Sent at least once: it may have arrived, so it stays as it is. */
  tried?: boolean
  /** How often the server failed over it. */
  failed?: number
  /** Why it was refused: it waits for the cook. */
  problem?: Problem
}
type Answer = { entry?: number }
type Entry = { content: Content; seen: number; corrects: number | null }

const STEM = 'dolmetsch:outbox:'
/** A server that fails this often over one record will not take it by itself. */
const TRIES = 3
const device = ref<Letter[]>(readDevice())
const letters = computed(() => device.value.filter((letter) => letter.owner === ownerKey()))
const isSending = ref(false)
const lastTrouble = ref<Problem | null>(null)
const listeners = new Set<(letter: Letter, answer: Answer) => void>()
let count = 0
let again = false

/** Every letter on this device, whoever wrote it. */
function readDevice(): Letter[] {
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

const readAll = (): Letter[] => readDevice().filter((letter) => letter.owner === ownerKey())

/** Each letter lies under a name of its own, so that two pages of one device never overwrite each other. */
function keep(letter: Letter): void {
  localStorage.setItem(STEM + letter.order, JSON.stringify(letter))
  device.value = readDevice()
}
function drop(letter: Letter): void {
  localStorage.removeItem(STEM + letter.order)
  device.value = readDevice()
}

export const isEntry = (body: object): body is Entry => 'content' in body && 'seen' in body

/** How many entries of a batch wait to be sent: each will move the batch on by one. */
const waitingIn = (code: string): number =>
  letters.value.filter((letter) => letter.code === code && isEntry(letter.body)).length

/** Write a letter and send it as soon as it can be. */
export function post(content: Omit<Letter, 'key' | 'owner' | 'order' | 'at'>): Letter {
  const body = isEntry(content.body)
    ? { ...content.body, seen: content.body.seen + waitingIn(content.code) }
    : content.body
  const order = `${String(Date.now()).padStart(15, '0')}-${String(count++).padStart(5, '0')}`
  const letter = {
    ...content,
    body,
    key: newKey(),
    owner: ownerKey(),
    order,
    at: stampNow(),
    isUnmeasured: !isMeasured(),
  }
  keep(letter)
  void send()
  return letter
}

/** The fields that the device stamps with a time. */
const STAMPED = ['happened_at', 'at'] as const
const stampsOf = (letter: Letter): string[] =>
  STAMPED.filter((name) => typeof (letter.body as Record<string, unknown>)[name] === 'string')

/**
 * A letter to be sent for the first time, with the times that the device stamped by the server's clock; what a
 * cook typed stays. Null where that clock cannot be asked: once sent, a letter stays as it is.
 */
async function timed(letter: Letter): Promise<Letter | null> {
  const stamps = stampsOf(letter)
  if (!letter.isUnmeasured || !stamps.length) return letter
  if (!isMeasured()) {
    const answered = await patientFetch('/api/session', { method: 'HEAD' }).catch(() => null)
    if (!answered) return null
  }
  const body: Record<string, unknown> = { ...letter.body }
  for (const name of stamps) body[name] = corrected(String(body[name]))
  return { ...letter, body, at: corrected(letter.at), isUnmeasured: false }
}

async function ask(letter: Letter): Promise<{ answer?: Answer; problem?: Problem }> {
  let response: Response
  try {
    response = await patientFetch(letter.path, {
      method: 'POST',
      headers: {
        'Content-Type': 'application/json',
        'Idempotency-Key': letter.key,
        // what was weighed is recorded without waiting for a page: whoever shows one reads it anew
        Prefer: 'return=minimal',
        'X-CSRFToken': csrfToken(),
        ...cookHeader(),
      },
      body: JSON.stringify(letter.body),
    })
  } catch {
    return { problem: noConnection }
  }
  const answer: unknown = await response.json().catch(() => null)
  if (response.ok) return { answer: (answer ?? {}) as Answer }
  return { problem: asProblem(answer, response.status) }
}

/** Send what waits, in order, once each; what a batch refuses holds back that batch's other letters. */
export async function send(): Promise<void> {
  if (isSending.value) {
    again = true
    return
  }
  isSending.value = true
  again = false
  try {
    const lock = (navigator as { locks?: LockManager }).locks
    if (lock) await lock.request('dolmetsch-outbox', sendAll)
    else await sendAll()
  } finally {
    isSending.value = false
  }
  // what was written while the last one was on its way
  if (again) void send()
}

async function sendAll(): Promise<void> {
  const held = new Set(readAll().flatMap((letter) => (letter.problem ? [letter.code] : [])))
  device.value = readDevice()
  for (;;) {
    const next = readAll().find((letter) => !letter.problem && !held.has(letter.code))
    if (!next) break
    const word = setTimeout(() => (lastTrouble.value = noConnection), SAY_SO)
    const ready = next.tried ? next : await timed(next)
    if (!ready) {
      clearTimeout(word)
      lastTrouble.value = noConnection
      return
    }
    const letter = { ...ready, tried: true }
    keep(letter)
    const { answer, problem } = await ask(letter).finally(() => clearTimeout(word))
    if (letter.owner !== ownerKey()) return
    if (answer) {
      arrived(letter, answer)
    } else if (waits(letter, problem ?? noConnection)) {
      return
    } else {
      keep({ ...letter, problem: problem ?? noConnection })
      held.add(letter.code)
    }
  }
  lastTrouble.value = null
}

/** Whether a letter stays at the head of those that wait; a server that keeps failing over it lets others pass. */
function waits(letter: Letter, problem: Problem): boolean {
  const failed = (letter.failed ?? 0) + (problem.code === 'server_error' ? 1 : 0)
  if (!retriable.has(problem.code) || failed >= TRIES) return false
  lastTrouble.value = problem
  keep({ ...letter, failed })
  if (problem.code === 'signed_out') signedOut()
  return true
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

/** Record a refused entry anyway, on top of what the batch has come to (`seen`). */
export function insist(letter: Letter, seen: number): void {
  const rest = { ...letter }
  delete rest.problem
  delete rest.tried
  delete rest.failed
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

/** Send a record once more as it is, under its own key: it may have arrived. */
export function tryAgain(letter: Letter): void {
  const rest = { ...letter }
  delete rest.problem
  delete rest.failed
  keep(rest)
  void send()
}

/** Discard a refused letter, and what would have taken it back. */
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
  if (event.key === null || event.key.startsWith(STEM)) device.value = readDevice()
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
    others: computed(() => device.value.length - letters.value.length),
    trouble: lastTrouble,
  }
}
