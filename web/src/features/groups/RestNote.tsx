import type { Schema } from '../../api/client'
import type { Layer } from '../../model/bricks'
import { wakeGroup } from '../../model/groupQueries'
import { momentText } from '../../reader/dates'
import { Button } from '../../ui/Button'
import { MarkBlock } from '../../ui/MarkSign'
import { TextLink } from '../../ui/TextLink'
import { useAct } from '../../undo/useAct'

interface RestNoteProps {
  group: Schema['GroupsGroupBody']
  layers: readonly Layer[]
  onBack: () => void
}

/** Under the wall of a group that is at rest: since when, what is in it, and how it is woken. */
export function RestNote({ group, layers, onBack }: RestNoteProps) {
  const wake = useAct({
    run: (groupId: string, set) => wakeGroup(groupId, set),
    say: () => `“${group.name}” is at work again, with its calendars on everybody’s wall.`,
    freshen: 'all',
  })
  return (
    <section
      aria-label="Group at rest"
      className="flex flex-wrap items-center gap-x-4 gap-y-2 border-t-2 border-ink bg-cement-100 px-4 py-2"
    >
      <p role="status" className="written">
        <b>{group.name}</b> is at rest
        {group.restsSince && <> since {momentText(group.restsSince)}</>}: it is read and not changed.
      </p>
      <ul className="flex flex-wrap gap-2">
        {layers.map((layer) => (
          <li
            key={layer.calendarId}
            data-hue={layer.hue}
            className="flex items-stretch border border-layer-edge bg-layer-tint text-layer-text"
          >
            <MarkBlock mark={layer.mark} size={22} />
            <span className="written px-2 py-0.5">{layer.name}</span>
          </li>
        ))}
      </ul>
      <div className="ml-auto flex flex-wrap items-center gap-x-4 gap-y-2">
        {group.coordinates && (
          <>
            <TextLink to={`/groups/${group.id}`}>Its settings</TextLink>
            <Button disabled={wake.isPending} onClick={() => wake.mutate(group.id)}>
              Wake it
            </Button>
          </>
        )}
        <Button look="link" onClick={onBack}>
          Back to your own wall
        </Button>
      </div>
    </section>
  )
}
