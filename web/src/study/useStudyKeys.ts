/** The keys of a study: stations, samples, undo, what is copied. */
import { DEVICE_GAP_MS, isTyping, useKeys } from '@/shared/useKeys'

export interface StudyActions {
  along: (by: 1 | -1) => void
  move: (way: 'undo' | 'redo') => Promise<void>
  confirmHere: () => Promise<void>
  duplicate: () => void
  /** Select the sample at a place, from 0, if there is one. */
  pick: (place: number) => void
}

/** In a field with something in it, Ctrl+Z is the field's own. */
function isFieldsOwn(event: KeyboardEvent): boolean {
  const { target } = event
  if (!isTyping(target)) return false
  const isText = target instanceof HTMLInputElement || target instanceof HTMLTextAreaElement
  const untouched = target instanceof HTMLElement && target.hasAttribute('data-detail')
  return isText && target.value !== '' && !untouched
}

function isUndo(event: KeyboardEvent): boolean {
  return (event.ctrlKey || event.metaKey) && !event.altKey && event.key.toLowerCase() === 'z' && !isFieldsOwn(event)
}

const placeOf = (event: KeyboardEvent) => Number(event.code.slice(-1)) - 1

export function useStudyKeys(act: StudyActions): void {
  let waiting: ReturnType<typeof setTimeout> | undefined
  /** Wait a moment: a caliper that types like a keyboard sends more right behind, and picks no sample. */
  function pickAfterDevice(place: number) {
    clearTimeout(waiting)
    const another = () => clearTimeout(waiting)
    window.addEventListener('keydown', another, { once: true })
    waiting = setTimeout(() => {
      window.removeEventListener('keydown', another)
      act.pick(place)
    }, DEVICE_GAP_MS)
  }

  useKeys([
    { keys: '[', does: 'the station before', matches: (event) => event.key === '[', run: () => act.along(-1), single: true },
    { keys: ']', does: 'the next station', matches: (event) => event.key === ']', run: () => act.along(1), single: true },
    {
      keys: 'Ctrl+← →',
      does: 'station before, next station, from a field too',
      matches: (event) => event.ctrlKey && (event.key === 'ArrowLeft' || event.key === 'ArrowRight') && !isFieldsOwn(event),
      run: (event) => act.along(event?.key === 'ArrowLeft' ? -1 : 1),
      inFields: true,
    },
    {
      keys: 'Ctrl+Z',
      does: 'undo the last change (Ctrl+Shift+Z redoes it)',
      matches: isUndo,
      run: (event) => void act.move(event?.shiftKey ? 'redo' : 'undo'),
      inFields: true,
    },
    { keys: 'Alt+C', does: 'confirm what is copied in this field, and go on', matches: (event) => event.altKey && event.code === 'KeyC', run: () => void act.confirmHere(), inFields: true },
    { keys: 'Alt+D', does: 'duplicate this sample, or begin one with a template', matches: (event) => event.altKey && event.code === 'KeyD', run: act.duplicate, inFields: true },
    {
      keys: '1 … 9',
      does: 'select that sample',
      matches: (event) => /^Digit[1-9]$/.test(event.code) && !event.ctrlKey && !event.shiftKey && !event.altKey,
      run: (event) => event && pickAfterDevice(placeOf(event)),
      single: true,
    },
    {
      keys: 'Alt+1 … 9',
      does: 'select that sample, from a field too',
      matches: (event) => /^Digit[1-9]$/.test(event.code) && event.altKey,
      run: (event) => event && act.pick(placeOf(event)),
      inFields: true,
    },
  ])
}
