import type { Schemas } from '@/shared/api/client'

export type FileIn = Schemas['FileIn']

/** A file as it is sent: its name, and what is in it in base 64. */
export async function readFile(file: File): Promise<FileIn> {
  const bytes = new Uint8Array(await file.arrayBuffer())
  let text = ''
  // in parts: an argument list has an end
  for (let at = 0; at < bytes.length; at += 8192)
    text += String.fromCharCode(...bytes.subarray(at, at + 8192))
  return { name: file.name.slice(0, 80), content: btoa(text) }
}
