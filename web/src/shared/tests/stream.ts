import { vi } from 'vitest'

/** Streams of events that a test speaks into, in place of the browser's own. */
export class FakeStream {
  static opened: FakeStream[] = []
  static readonly CLOSED = 2
  readyState = 1
  onopen: (() => void) | null = null
  onmessage: ((event: { data: string; lastEventId: string }) => void) | null = null
  onerror: ((event: unknown) => void) | null = null
  constructor(readonly url: string) {
    FakeStream.opened.push(this)
  }
  addEventListener(): void {}
  close(): void {
    this.readyState = FakeStream.CLOSED
  }
  say(event: object): void {
    this.onmessage?.({ data: JSON.stringify(event), lastEventId: '' })
  }
}

/** Streams opened from now on are fakes; the latest of them. */
export function standInForStreams(): () => FakeStream | undefined {
  FakeStream.opened = []
  vi.stubGlobal('EventSource', FakeStream)
  return () => FakeStream.opened.at(-1)
}
