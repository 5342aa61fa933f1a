/** A file that a person chose, as text; refused before it is read where it is too large, and never changed by being read. */
import { ProblemError } from '@/api/client'

const refusal = (name: string, why: string) => new ProblemError({ detail: `${name} ${why}`, where: '', missing: [] })

/** Return the text of a file of at most `most` bytes, or throw the sentence that refuses it. */
export async function readTextFile(file: File, most: number): Promise<string> {
  if (file.size > most) throw refusal(file.name, `is larger than ${most / 1e6} MB, the most that is read: choose another file.`)
  let content: ArrayBuffer
  try {
    content = await file.arrayBuffer()
  } catch {
    throw refusal(file.name, 'cannot be read: see that it is still there, then choose it again.')
  }
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(content)
  } catch {
    throw refusal(file.name, 'is not text in UTF-8: save it as UTF-8, then choose it again.')
  }
}
