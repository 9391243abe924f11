let holds = 0
let holding = false

/** Which hold a handle is in, from the press to the release; nothing when no handle is held. */
export const heldNow = () => (holding ? holds : undefined)

/** Takes hold of a handle: it is reported of every move until it is let go, wherever the pointer is. */
export function hold(e: PointerEvent, moved: (m: PointerEvent) => void) {
  const el = e.currentTarget as Element
  e.preventDefault()
  el.setPointerCapture(e.pointerId)
  holds++
  holding = true
  const move = (m: Event) => moved(m as PointerEvent)
  el.addEventListener('pointermove', move)
  el.addEventListener(
    'lostpointercapture',
    () => {
      holding = false
      el.removeEventListener('pointermove', move)
    },
    { once: true },
  )
}
