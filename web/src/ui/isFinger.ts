let last = ''

window.addEventListener(
  'pointerdown',
  (event) => {
    last = event.pointerType
  },
  { capture: true, passive: true },
)

/** Whether what was pressed last was pressed by a finger: devices may have both. */
export const isFinger = (): boolean => last === 'touch'
