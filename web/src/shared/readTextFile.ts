/** A file that a person chose, as text; refused before it is read where it is too large, and never changed by being read. */
import { ProblemError } from '@/api/client'

const refusal = (name: string, why: string) => new ProblemError({ detail: `${name} ${why}`, where: '', missing: [] })

async function contentOf(file: File, most: number): Promise<ArrayBuffer> {
  if (file.size > most) throw refusal(file.name, `is larger than ${most / 1e6} MB, the most that is read: choose another file.`)
  try {
    return await file.arrayBuffer()
  } catch {
    throw refusal(file.name, 'cannot be read: see that it is still there, then choose it again.')
  }
}

/** How a file of at most `most` bytes is sent as it is; throws the sentence that refuses it. */
export async function sentAsItIs(file: File, most: number, mediaType: string) {
  const content = new Blob([await contentOf(file, most)])
  return { body: '', bodySerializer: () => content, headers: { 'Content-Type': mediaType } }
}

/** Return the text of a file of at most `most` bytes, or throw the sentence that refuses it. */
export async function readTextFile(file: File, most: number): Promise<string> {
  const content = await contentOf(file, most)
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(content)
  } catch {
    throw refusal(file.name, 'is not text in UTF-8: save it as UTF-8, then choose it again.')
  }
}
