import { onBeforeUnmount, onMounted } from 'vue'

export type KeyMap = Readonly<Record<string, () => void>>

/** Whether a key press belongs to a field that is being typed in. */
export function isTyping(target: EventTarget | null): boolean {
  if (!(target instanceof HTMLElement)) return false
  if (target instanceof HTMLInputElement)
    return !['range', 'checkbox', 'radio', 'button'].includes(target.type)
  return target.isContentEditable || ['TEXTAREA', 'SELECT'].includes(target.tagName)
}

/** Follows presses and finds the action: single keys, and two-key words such as `g r`. */
export function keyReader(map: KeyMap, now: () => number = Date.now): (key: string) => (() => void) | null {
  let first = ''
  let since = 0
  return (key) => {
    const word = first && now() - since < 1500 ? `${first} ${key}` : key
    const starts = Object.keys(map).some((name) => name.startsWith(`${word} `))
    first = starts ? word : ''
    since = now()
    return map[word] ?? null
  }
}

/** Keys of a page, for as long as it stands; presses in fields and with modifiers are left alone. */
export function useKeys(map: KeyMap) {
  const read = keyReader(map)
  function press(event: KeyboardEvent) {
    if (event.ctrlKey || event.metaKey || event.altKey || isTyping(event.target)) return
    const action = read(event.key)
    if (action) {
      event.preventDefault()
      action()
    }
  }
  onMounted(() => window.addEventListener('keydown', press))
  onBeforeUnmount(() => window.removeEventListener('keydown', press))
}
