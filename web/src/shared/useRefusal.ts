/** Refusal, shown at its place; any other error is thrown on. */
import { ref } from 'vue'
import { ProblemError } from '@/api/client'

export function useRefusal() {
  const refused = ref('')

  /** Do something, and return whether it was taken. */
  async function guarded(work: () => Promise<unknown>): Promise<boolean> {
    refused.value = ''
    try {
      await work()
      return true
    } catch (error) {
      if (!(error instanceof ProblemError)) throw error
      refused.value = error.message
      return false
    }
  }

  return { refused, guarded }
}
