interface AskBarProps {
  open: string | undefined
  /** How many clashes wait; undefined while that is not known. */
  clashes: number | undefined
  onGaps: () => void
  onFree: () => void
  onClashes: () => void
}

const look =
  'h-8 rounded-control border border-cement-500 bg-cement-50 px-2.5 hover:bg-surface aria-pressed:border-ink aria-pressed:bg-ink aria-pressed:text-on-ink'

/** What can be asked of the weeks: when can all, who is free, what collides. */
export function AskBar({ open, clashes, onGaps, onFree, onClashes }: AskBarProps) {
  return (
    <>
      <button
        type="button"
        title="When all of them are free  F"
        aria-pressed={open === 'gaps'}
        onClick={onGaps}
        className={look}
      >
        Gaps
      </button>
      <button
        type="button"
        title="Who is free at a time  W"
        aria-pressed={open === 'free'}
        onClick={onFree}
        className={look}
      >
        Free?
      </button>
      <button
        type="button"
        title="What collides in the weeks ahead  K"
        aria-pressed={open === 'clashes'}
        onClick={onClashes}
        className={look}
      >
        Clashes{' '}
        {clashes !== undefined && clashes > 0 && (
          <span className="ml-1 bg-clash px-1 text-[12px] font-bold text-surface">{clashes}</span>
        )}
      </button>
    </>
  )
}
