import { afterEach, expect } from 'vitest'

/** A warning is an error: the test fails in which Vue, or anything else, warned of something. */
const warned: string[] = []
console.warn = (...words: unknown[]) => void warned.push(words.join(' '))
afterEach(() => expect(warned.splice(0)).toEqual([]))
