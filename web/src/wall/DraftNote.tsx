import { brickKey } from '../model/bricks'
import type { Wall } from './useWall'

/** What was written and not saved, until it is saved or one says that it can go. */
export function DraftNote({ draft }: Pick<Wall, 'draft'>) {
  return (
    <div role="status">
      {draft.left.map((form) => (
        <p
          key={brickKey(form)}
          className="flex flex-wrap items-center gap-x-4 border-b border-cement-300 bg-cement-200 px-4 text-[13px]"
        >
          <span className="written py-1">“{draft.titleIn(form)}” was not saved.</span>
          <button type="button" onClick={() => draft.open(form)} className="py-1 font-bold underline">
            Bring it back
          </button>
          <button type="button" onClick={() => draft.forget(form)} className="py-1 underline">
            Let it go
          </button>
        </p>
      ))}
    </div>
  )
}
