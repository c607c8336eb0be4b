import { useQuery } from '@tanstack/react-query'
import { accessQueries } from '../model/accessQueries'
import type { Layer } from '../model/bricks'
import { MarkBlock } from './MarkSign'

interface GoesToProps {
  layers: readonly Layer[]
  calendarId: string
  /** Whether others see only its times. */
  isPrivate?: boolean
  onChange: (calendarId: string) => void
}

/** The calendar an event goes to: first on the desk, in that calendar's colour, changed in one act. */
export function GoesTo({ layers, calendarId, isPrivate = false, onChange }: GoesToProps) {
  const layer = layers.find((one) => one.calendarId === calendarId)
  const audience = useQuery({
    ...accessQueries.audience(calendarId),
    enabled: layer?.may.add === true,
  })
  return (
    <div>
      <div
        data-hue={layer?.hue}
        className="relative flex items-stretch border border-layer-edge bg-layer-tint text-layer-text"
      >
        {layer && (
          <span className="flex">
            <MarkBlock mark={layer.mark} size={26} />
          </span>
        )}
        <label className="grid flex-1 px-2.5 py-1">
          <span className="text-[12px]">
            goes to{layer && !layer.shown && ', which is hidden on your wall'}
          </span>
          <select
            value={calendarId}
            onChange={(event) => onChange(event.target.value)}
            className="w-full bg-transparent text-[15px] font-bold text-layer-text"
          >
            {!layer && (
              <option value="" disabled className="bg-surface text-ink">
                Choose a calendar
              </option>
            )}
            {layers.map((one) => (
              <option key={one.calendarId} value={one.calendarId} className="bg-surface text-ink">
                {one.name}
              </option>
            ))}
          </select>
        </label>
      </div>
      {layer && audience.data && (
        <p className="written mt-1 text-[12px] text-cement-700">
          Seen by {audience.data.sentence}.
          {isPrivate && ' Only its times, but for those named and those who may change it.'}
        </p>
      )}
      {!layer && (
        <p role="alert" className="mt-2 border-l-4 border-clash pl-3">
          Nothing can be added any more where this was to go. What you wrote stays: choose another calendar.
        </p>
      )}
    </div>
  )
}
