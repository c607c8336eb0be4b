import { Search as SearchSign } from 'lucide-react'
import { GroupMenu } from '../features/groups/GroupMenu'
import { TopBar } from '../frame/TopBar'
import { keepLastGroup } from '../model/groupQueries'
import { PeriodNav } from './PeriodNav'
import type { Wall } from './useWall'
import { ViewTabs } from './ViewTabs'

/** The bar over the wall: whose it is, which days, which view, and what is begun from it. */
export function WallBar({ wall, title }: { wall: Wall; title: string }) {
  const { at, draft, making } = wall
  return (
    <TopBar>
      <GroupMenu
        groups={wall.groups}
        open={wall.group}
        onOpen={(groupId) => {
          if (wall.groups.some((one) => one.id === groupId && one.restsSince === null)) keepLastGroup(groupId)
          at.place(null, { group: groupId, who: null })
        }}
        onNewCalendar={() => draft.put({ kind: 'newCalendar' })}
        onNewGroup={() => at.place({ kind: 'newGroup' })}
        onAsk={() => at.place({ kind: 'ask' })}
      />
      <PeriodNav
        title={title}
        today={at.today}
        onMove={(steps) => at.step(steps)}
        onNow={() => at.goTo(at.today)}
        onGo={at.goTo}
      />
      <ViewTabs view={at.view} span={at.exact || at.span} onView={at.showView} onSpan={at.setSpan} />
      <div className="ml-auto flex items-center gap-1.5">
        <button
          type="button"
          title="Find  /"
          onClick={() => at.place({ kind: 'find' })}
          className="flex items-center rounded-control border border-on-bar/40 px-2.5 py-1 max-sm:px-2"
        >
          <SearchSign size={18} aria-hidden="true" className="sm:hidden" />
          <span className="max-sm:sr-only">Find</span>
        </button>
        <button
          type="button"
          title="New event  N"
          onClick={() => making.placeOn(at.firstHere, '')}
          className="rounded-control bg-on-bar px-3 py-1 font-bold text-bar max-sm:px-2.5"
        >
          New<span className="max-2xl:sr-only"> event</span>
        </button>
      </div>
    </TopBar>
  )
}
