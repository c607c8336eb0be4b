import { X } from 'lucide-react'
import { useEffect } from 'react'
import { IconButton } from './IconButton'

interface NoticeBarProps {
  notice: {
    id: number
    sentence: string
    tone: 'done' | 'bad'
    offer?: { label: string; run: () => void }
  } | null
  onClose: () => void
}

/** The short line after an act: what happened, and Undo. It stays long enough to be read and reached. */
export function NoticeBar({ notice, onClose }: NoticeBarProps) {
  const id = notice?.id
  const stays = notice?.tone === 'bad'
  useEffect(() => {
    if (id === undefined || stays) return
    const timer = setTimeout(onClose, 12_000)
    return () => clearTimeout(timer)
  }, [id, stays, onClose])

  return (
    <div
      role="status"
      aria-live="polite"
      className="pointer-events-none fixed bottom-16 left-1/2 z-35 w-max max-w-[calc(100vw-2rem)] -translate-x-1/2"
    >
      {notice && (
        <div
          data-tone={notice.tone}
          className="pointer-events-auto flex items-center gap-3 rounded-control bg-ink py-1.5 pr-1.5 pl-4 text-on-ink shadow-lg data-[tone=bad]:border-l-8 data-[tone=bad]:border-clash"
        >
          <span className="written">{notice.sentence}</span>
          {notice.offer && (
            <button
              type="button"
              onClick={notice.offer.run}
              className="shrink-0 rounded-control px-2 py-1 font-bold underline underline-offset-2"
            >
              {notice.offer.label}
            </button>
          )}
          <IconButton label="Close this line" tone="onInk" onClick={onClose}>
            <X size={16} />
          </IconButton>
        </div>
      )}
    </div>
  )
}
