import { useState } from 'react'
import type { Layer } from '../../model/bricks'
import { Button } from '../../ui/Button'
import { Desk } from '../../ui/Desk'
import { LookFields } from '../../ui/LookFields'
import { TextField } from '../../ui/TextField'
import { ReminderChoice } from '../reminders'
import { useShelf } from './useShelf'

/** My own colour, sign and name for a layer; nobody else sees it. */
export function LookDesk({
  layer,
  layers,
  onClose,
}: {
  layer: Layer
  layers: readonly Layer[]
  onClose: () => void
}) {
  const shelf = useShelf(layers, null)
  const [look, setLook] = useState({ name: layer.name, hue: layer.hue, mark: layer.mark })
  const keep = (next: typeof look) => {
    shelf.lay(layer.calendarId, { ...next, name: next.name.trim() || layer.calendar.name })
    onClose()
  }
  return (
    <Desk title={`My look of ${layer.calendar.name}`} onClose={onClose}>
      <form
        onSubmit={(event) => {
          event.preventDefault()
          keep(look)
        }}
        className="grid gap-3"
      >
        <p className="text-cement-700">Only you see this. For everybody else it stays as it is.</p>
        <TextField label="Name" value={look.name} onChange={(name) => setLook({ ...look, name })} />
        <LookFields look={look} onChange={(part) => setLook({ ...look, ...part })} />
        <Button type="submit" look="main" wide>
          Keep my look
        </Button>
        <Button onClick={() => keep(layer.calendar)}>As everybody sees it</Button>
      </form>
      <div className="mt-5 border-t border-cement-300 pt-4">
        <ReminderChoice calendarId={layer.calendarId} />
      </div>
    </Desk>
  )
}
