import { useQuery, useQueryClient } from '@tanstack/react-query'
import { type FormEvent, useState } from 'react'
import { Link, useParams } from 'react-router'
import type { Schema } from '../../api/client'
import { fieldProblem } from '../../api/problem'
import { BarTitle } from '../../frame/BarTitle'
import { TopBar } from '../../frame/TopBar'
import { useClashDays } from '../../frame/useClashes'
import { clashesQuery } from '../../model/availabilityQueries'
import { zonesQuery } from '../../model/calendarQueries'
import { groupQueries, sorts, writeGroup } from '../../model/groupQueries'
import { roleName } from '../../model/ladder'
import { shelfQuery } from '../../model/shelfQuery'
import { asClock, asMinutes, weekdays } from '../../reader/preferences'
import { Button } from '../../ui/Button'
import { Choice } from '../../ui/Choice'
import { ClockField } from '../../ui/ClockField'
import { FormProblem } from '../../ui/FormProblem'
import { Page } from '../../ui/Page'
import { TextField } from '../../ui/TextField'
import { newSet, useActs } from '../../undo/acts'
import { NeedFields } from './NeedFields'

type Group = Schema['GroupsGroupBody']

/** A group and its settings. */
export function GroupPage() {
  const { groupId = '' } = useParams()
  const groups = useQuery(groupQueries.list)
  const group = groups.data?.find((one) => one.id === groupId)
  return (
    <div className="flex h-full flex-col">
      <TopBar>
        <BarTitle text={`Group${group ? `: ${group.name}` : ''}`} />
      </TopBar>
      {groups.isSuccess && !group && (
        <Page title="There is no such group, or you are not in it">
          <Link to="/" className="underline underline-offset-2">
            Back to the wall
          </Link>
        </Page>
      )}
      {group && (
        <Page title={group.name}>
          <Settings key={group.version} group={group} />
        </Page>
      )}
    </div>
  )
}

/** How much of the group's collides in the weeks ahead, and the way there. */
function ClashCount({ groupId }: { groupId: string }) {
  const { today, last } = useClashDays()
  const shelf = useQuery(shelfQuery)
  const clashes = useQuery(clashesQuery(today, last))
  const here = new Set(
    (shelf.data ?? []).filter((one) => one.groupId === groupId).map((one) => one.calendarId),
  )
  const count = (clashes.data?.clashes ?? []).filter((one) =>
    [one.first, one.second].some((half) => here.has(half.calendarId)),
  ).length
  return clashes.data && shelf.data ? (
    <Link to={`/roster?group=${groupId}&desk=clashes`} className="underline underline-offset-2">
      {count === 0 ? 'No clashes' : count === 1 ? 'One clash' : `${count} clashes`} in the weeks ahead
    </Link>
  ) : null
}

function Settings({ group }: { group: Group }) {
  const queries = useQueryClient()
  const acts = useActs()
  const zones = useQuery(zonesQuery)
  const shelf = useQuery(shelfQuery)
  const [wish, setWish] = useState<Group>(group)
  const [error, setError] = useState<unknown>(null)
  const set = (part: Partial<Group>) => setWish({ ...wish, ...part })
  const submit = async (event: FormEvent) => {
    event.preventDefault()
    const act = newSet()
    try {
      const { name, sort, zone, firstDay, dayBegins, dayEnds, cover, daysOff } = wish
      await writeGroup(
        group.id,
        group.version,
        { name, sort, zone, firstDay, dayBegins, dayEnds, cover, daysOff },
        act,
      )
      setError(null)
      acts.done(`Changed the settings of “${wish.name.trim()}”.`, act)
      await queries.invalidateQueries({ queryKey: ['groups'] })
    } catch (bad) {
      setError(bad)
    }
  }
  return (
    <div className="grid gap-6">
      <p className="flex flex-wrap gap-4">
        <Link to={`/groups/${group.id}/people`} className="underline underline-offset-2">
          People
        </Link>
        {group.coordinates && (
          <Link to={`/groups/${group.id}/access`} className="underline underline-offset-2">
            Who may see and change what
          </Link>
        )}
        <Link to="/bin" className="underline underline-offset-2">
          Bin
        </Link>
        <ClashCount groupId={group.id} />
      </p>
      <form onSubmit={submit} className="grid gap-4" noValidate>
        <fieldset disabled={!group.coordinates} className="grid grid-cols-2 gap-3 max-sm:grid-cols-1">
          <TextField
            label="Name"
            value={wish.name}
            onChange={(name) => set({ name })}
            problem={fieldProblem(error, 'name')}
          />
          <Choice label="Sort" value={wish.sort} onChange={(sort) => set({ sort })} options={sorts} />
          <Choice
            label="Time zone"
            value={wish.zone}
            onChange={(zone) => set({ zone })}
            options={(zones.data ?? [wish.zone]).map((zone) => ({
              value: zone,
              label: zone.replaceAll('_', ' '),
            }))}
            problem={fieldProblem(error, 'zone')}
            hint="New calendars begin with it."
          />
          <Choice
            label="Weeks begin on"
            value={wish.firstDay}
            onChange={(firstDay) => set({ firstDay })}
            options={weekdays.map((day) => ({
              value: day,
              label: `${day[0]?.toUpperCase()}${day.slice(1)}`,
            }))}
            problem={fieldProblem(error, 'firstDay')}
          />
          <div className="grid grid-cols-2 gap-3">
            <ClockField
              label="Usual hours from"
              value={asClock(wish.dayBegins)}
              onChange={(clock) => set({ dayBegins: asMinutes(clock) })}
            />
            <ClockField
              label="to"
              value={asClock(wish.dayEnds)}
              onChange={(clock) => set({ dayEnds: asMinutes(clock) })}
              problem={fieldProblem(error, 'dayEnds')}
            />
          </div>
          <p className="self-end text-[12px] text-cement-700">
            On a new calendar every member of this sort of group begins with {roleName(group.defaults.events)}
            {group.defaults.away !== group.defaults.events &&
              `, and with ${roleName(group.defaults.away)} where it is for absences`}
            . Each calendar can be given another step.
          </p>
        </fieldset>
        <fieldset disabled={!group.coordinates} className="grid gap-2">
          <legend className="mb-1 font-head text-lg font-bold">Cover</legend>
          <p className="text-[12px] text-cement-700">
            How many have to be there on each weekday: of everybody, or of some, in some hours. The roster
            counts who is, and says where they are too few.
          </p>
          <NeedFields groupId={group.id} needs={wish.cover} onChange={(cover) => set({ cover })} />
          {fieldProblem(error, 'cover') && (
            <p role="alert" className="text-clash">
              {fieldProblem(error, 'cover')}
            </p>
          )}
          <Choice
            label="Days off for all"
            value={wish.daysOff ?? ''}
            onChange={(calendar) => set({ daysOff: calendar === '' ? null : calendar })}
            options={[
              { value: '', label: 'none' },
              ...(shelf.data ?? [])
                .filter(
                  (layer) =>
                    layer.groupId === group.id && (layer.may.coordinate || layer.calendarId === wish.daysOff),
                )
                .map((layer) => ({ value: layer.calendarId, label: `the whole days of ${layer.name}` })),
            ]}
            problem={fieldProblem(error, 'daysOff')}
            hint="Put holidays into a calendar, by hand or from a file. On them nobody is needed, and an absence costs no day."
          />
          <p className="flex flex-wrap gap-4">
            <Link to={`/groups/${group.id}/cover`} className="underline underline-offset-2">
              Who is away, month by month
            </Link>
            <Link to={`/groups/${group.id}/absences`} className="underline underline-offset-2">
              Days away in a year
            </Link>
          </p>
        </fieldset>
        <FormProblem error={error} fields={['name', 'zone', 'firstDay', 'dayEnds', 'cover', 'daysOff']} />
        {group.coordinates ? (
          <>
            <div>
              <Button type="submit" look="main">
                Save settings
              </Button>
            </div>
            <p className="text-[12px] text-cement-700">
              To hand the group over, make somebody else a coordinator{' '}
              <Link to={`/groups/${group.id}/people`} className="underline underline-offset-2">
                among its people
              </Link>
              , then take yourself out of the coordinators. A group always keeps one.
            </p>
          </>
        ) : (
          <p className="text-cement-700">Those who coordinate the group can change this.</p>
        )}
      </form>
    </div>
  )
}
