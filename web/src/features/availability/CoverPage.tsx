import { useQuery } from '@tanstack/react-query'
import { Link, useParams, useSearchParams } from 'react-router'
import { sentenceOf } from '../../api/problem'
import { BarTitle } from '../../frame/BarTitle'
import { TopBar } from '../../frame/TopBar'
import { coverQuery } from '../../model/availabilityQueries'
import { groupQueries } from '../../model/groupQueries'
import { needText } from '../../model/needText'
import { addDays, daysFrom } from '../../model/times'
import { longDayText, monthText, weekdayText } from '../../reader/dates'
import { useReader } from '../../reader/person'
import { Alert } from '../../ui/Alert'
import { Button } from '../../ui/Button'
import { NoSuchGroup } from '../../ui/NoSuchGroup'
import { TextLink } from '../../ui/TextLink'

/** Who is away in a month, as people draw it by hand: a row a member, a column a day, and who is left under it. */
export function CoverPage() {
  const { groupId = '' } = useParams()
  const { now, person } = useReader()
  const [search, setSearch] = useSearchParams()
  const today = new Date(now()).toLocaleDateString('sv', { timeZone: person.zone })
  const month = /^\d{4}-\d{2}$/.test(search.get('month') ?? '') ? `${search.get('month')}` : today.slice(0, 7)
  const first = `${month}-01`
  const next = addDays(first, 32).slice(0, 7)
  const before = addDays(first, -1).slice(0, 7)
  const last = addDays(`${next}-01`, -1)
  const groups = useQuery(groupQueries.list)
  const group = groups.data?.find((one) => one.id === groupId)
  const members = useQuery({ ...groupQueries.members(groupId), enabled: group !== undefined })
  const cover = useQuery({ ...coverQuery(groupId, first, last), enabled: group !== undefined })
  const days = daysFrom(first, Number(last.slice(8)))
  const byDay = new Map((cover.data?.days ?? []).map((one) => [one.day, one]))
  if (groups.isSuccess && !group) return <NoSuchGroup />
  return (
    <div className="page">
      <TopBar>
        <BarTitle text={`Who is away${group ? `: ${group.name}` : ''}`} />
      </TopBar>
      <main className="min-h-0 flex-1 overflow-auto bg-cement-50 px-6 py-4 max-sm:px-3">
        <div className="mb-3 flex items-center gap-2">
          <Button onClick={() => setSearch({ month: before })}>Earlier</Button>
          <h2 className="min-w-44 text-center text-xl">{monthText(first)}</h2>
          <Button onClick={() => setSearch({ month: next })}>Later</Button>
          <Link to={`/groups/${groupId}`} className="ml-3 underline underline-offset-2">
            How many are needed
          </Link>
          <TextLink to={`/groups/${groupId}/absences?year=${month.slice(0, 4)}`}>
            Days away in {month.slice(0, 4)}
          </TextLink>
          <span className="ml-auto text-[12px] text-cement-700">As far as you see absences.</span>
        </div>
        {cover.isError && <Alert>{sentenceOf(cover.error)}</Alert>}
        <table className="w-full table-fixed border-collapse text-[12px]">
          <thead>
            <tr>
              <th className="w-36 text-left font-normal text-cement-700">Member</th>
              {days.map((day) => (
                <th
                  key={day}
                  data-today={day === today}
                  title={longDayText(day)}
                  className="border-l border-cement-200 py-1 font-normal data-[today=true]:bg-ink data-[today=true]:text-on-ink"
                >
                  <span className="block text-[11px]">{weekdayText(day).slice(0, 2)}</span>
                  {Number(day.slice(8))}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {(members.data ?? []).map((one) => (
              <tr key={one.personId} className="border-t border-cement-200">
                <th className="written truncate py-1 pr-2 text-left font-bold">{one.name}</th>
                {days.map((day) => {
                  const there = byDay.get(day)
                  const isAway = there?.missing.includes(one.personId) === true
                  const half = there?.awayBeforeNoon.includes(one.personId)
                    ? 'until noon'
                    : there?.awayAfterNoon.includes(one.personId)
                      ? 'from noon on'
                      : null
                  const isPerhaps = there?.perhaps.includes(one.personId) === true
                  const isOff = there && !isAway && !there.present.includes(one.personId)
                  return (
                    <td
                      key={day}
                      data-away={isAway}
                      data-half={half}
                      data-off={isOff}
                      data-perhaps={isPerhaps}
                      title={
                        isAway
                          ? `${one.name} is away on ${longDayText(day)}`
                          : half
                            ? `${one.name} is away on ${longDayText(day)} ${half}`
                            : isPerhaps
                              ? `${one.name} is perhaps away on ${longDayText(day)}: nobody has agreed yet`
                              : undefined
                      }
                      className="border-l border-cement-200 text-center data-[away=true]:bg-ink data-[away=true]:text-on-ink data-half:bg-cement-300 data-half:font-bold data-[off=true]:bg-cement-200 data-[perhaps=true]:border-2 data-[perhaps=true]:border-dashed data-[perhaps=true]:border-ink data-[perhaps=true]:font-bold"
                    >
                      {isAway ? 'A' : half ? '½' : isPerhaps ? '?' : ''}
                    </td>
                  )
                })}
              </tr>
            ))}
          </tbody>
          <tfoot>
            {(cover.data?.needs ?? []).map((need, index) => (
              <tr key={need.name} className="border-t-2 border-cement-300">
                <th className="py-1 pr-2 text-left font-bold">{needText(need) || 'There, of needed'}</th>
                {days.map((day) => {
                  const met = byDay.get(day)?.needs[index]
                  return (
                    <td
                      key={day}
                      data-low={(met?.tooFew ?? 0) > 0}
                      className="border-l border-cement-200 text-center data-[low=true]:bg-clash data-[low=true]:font-bold data-[low=true]:text-surface"
                    >
                      {met && met.needed > 0 && (
                        <>
                          {met.there}
                          <span className="block text-[11px]">/{met.needed}</span>
                        </>
                      )}
                    </td>
                  )
                })}
              </tr>
            ))}
          </tfoot>
        </table>
      </main>
    </div>
  )
}
