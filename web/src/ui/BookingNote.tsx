import type { Layer } from '../model/bricks'

interface BookingNoteProps {
  /** What stands as the place. */
  place: string
  calendarId: string
  layers: readonly Layer[]
  /** It is to go to the place's own calendar. */
  onBook: (calendarId: string) => void
}

/** Under the place: a name there books nothing; what is in the place's own calendar does. */
export function BookingNote({ place, calendarId, layers, onBook }: BookingNoteProps) {
  const named = place
    .toLowerCase()
    .split(',')
    .map((name) => name.trim())
  const places = layers.filter(
    (layer) =>
      layer.purpose === 'place' &&
      named.includes(layer.name.toLowerCase()) &&
      layer.calendarId !== calendarId,
  )
  return places.map((layer) => (
    <p key={layer.calendarId} className="written border-l-4 border-ink pl-2 text-[13px]">
      “{layer.name}” is not booked by its name alone: what goes to its calendar books it.{' '}
      {layer.may.add ? (
        <button
          type="button"
          onClick={() => onBook(layer.calendarId)}
          className="underline underline-offset-2"
        >
          Let it go to “{layer.name}”
        </button>
      ) : (
        'You cannot add to it; ask who coordinates it.'
      )}
    </p>
  ))
}
