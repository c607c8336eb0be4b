import { useQuery } from '@tanstack/react-query'
import { Link, useParams, useSearchParams } from 'react-router'
import { sentenceOf } from '../../api/problem'
import { BarTitle } from '../../frame/BarTitle'
import { TopBar } from '../../frame/TopBar'
import { groupQueries } from '../../model/groupQueries'
import { monthText, shortMonthText } from '../../reader/dates'
import { useReader } from '../../reader/person'
import { Alert } from '../../ui/Alert'
import { Button } from '../../ui/Button'
import { NoSuchGroup } from '../../ui/NoSuchGroup'
import { TextLink } from '../../ui/TextLink'
import { absencesQuery } from './absenceQueries'

/** How many working days everybody is away in a year: a row a member, a column a month, and the sum. */
export function AbsencesPage() {
  const { groupId = '' } = useParams()
  const { now, person } = useReader()
  const [search, setSearch] = useSearchParams()
  const today = new Date(now()).toLocaleDateString('sv', { timeZone: person.zone })
  const asked = Number(search.get('year'))
  const year = asked >= 1900 && asked <= 2199 ? asked : Number(today.slice(0, 4))
  const groups = useQuery(groupQueries.list)
  const group = groups.data?.find((one) => one.id === groupId)
  const members = useQuery({ ...groupQueries.members(groupId), enabled: group !== undefined })
  const totals = useQuery({ ...absencesQuery(groupId, year), enabled: group !== undefined })
  const byPerson = new Map((totals.data ?? []).map((one) => [one.personId, one]))
  const months = Array.from({ length: 12 }, (_, month) => `${year}-${String(month + 1).padStart(2, '0')}-01`)
  if (groups.isSuccess && !group) return <NoSuchGroup />
  return (
    <div className="page">
      <TopBar>
        <BarTitle text={`Days away${group ? `: ${group.name}` : ''}`} />
      </TopBar>
      <main className="min-h-0 flex-1 overflow-auto bg-cement-50 px-6 py-4 max-sm:px-3">
        <div className="mb-3 flex flex-wrap items-center gap-2">
          <Button onClick={() => setSearch({ year: String(year - 1) })}>Earlier</Button>
          <h2 className="min-w-24 text-center text-xl">{year}</h2>
          <Button onClick={() => setSearch({ year: String(year + 1) })}>Later</Button>
          <Link to={`/groups/${groupId}/cover`} className="ml-3 underline underline-offset-2">
            Month by month
          </Link>
          <Link
            to={`/print?what=absences&group=${groupId}&from=${year}-01-01&to=${year}-12-31`}
            className="underline underline-offset-2"
          >
            Print
          </Link>
          <Link
            to={`/spreadsheet?what=absences&group=${groupId}&from=${year}-01-01&to=${year}-12-31`}
            className="underline underline-offset-2"
          >
            As a spreadsheet
          </Link>
          <span className="ml-auto text-[12px] text-cement-700">
            Working days, a half counts as a half; days off for all cost none. As far as you see absences.
          </span>
        </div>
        {totals.isError && <Alert>{sentenceOf(totals.error)}</Alert>}
        <table className="w-full border-collapse">
          <thead>
            <tr className="text-[12px] text-cement-700">
              <th className="text-left font-normal">Member</th>
              {months.map((month) => (
                <th key={month} className="px-1 py-1 text-right font-normal" title={monthText(month)}>
                  {shortMonthText(month)}
                </th>
              ))}
              <th className="px-2 text-right font-bold text-ink">{year}</th>
            </tr>
          </thead>
          <tbody>
            {(members.data ?? []).map((one) => {
              const total = byPerson.get(one.personId)
              return (
                <tr key={one.personId} className="border-t border-cement-200">
                  <th className="written py-1.5 pr-2 text-left font-bold">{one.name}</th>
                  {months.map((month, index) => {
                    const halves = total?.halfDays[index] ?? 0
                    return (
                      <td key={month} className="px-1 text-right tabular-nums">
                        {halves > 0 && (
                          <TextLink to={`/groups/${groupId}/cover?month=${month.slice(0, 7)}`}>
                            {daysText(halves / 2)}
                          </TextLink>
                        )}
                      </td>
                    )
                  })}
                  <td className="px-2 text-right font-bold tabular-nums">
                    {total ? daysText(total.days) : ''}
                  </td>
                </tr>
              )
            })}
          </tbody>
        </table>
      </main>
    </div>
  )
}

const daysText = (days: number): string => days.toLocaleString('en-GB', { maximumFractionDigits: 1 })
