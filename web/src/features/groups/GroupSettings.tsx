import { useQuery, useQueryClient } from '@tanstack/react-query'
import { type FormEvent, useState } from 'react'
import type { Schema } from '../../api/client'
import { fieldProblem } from '../../api/problem'
import { zonesQuery } from '../../model/calendarQueries'
import { sorts, writeGroup } from '../../model/groupQueries'
import { settingsOf } from '../../model/groupSettings'
import { roleName } from '../../model/ladder'
import { shelfQuery } from '../../model/shelfQuery'
import { asClock, asMinutes, weekdays } from '../../reader/preferences'
import { Alert } from '../../ui/Alert'
import { Button } from '../../ui/Button'
import { Choice } from '../../ui/Choice'
import { ClockField } from '../../ui/ClockField'
import { FormProblem } from '../../ui/FormProblem'
import { Note } from '../../ui/Note'
import { TextField } from '../../ui/TextField'
import { TextLink } from '../../ui/TextLink'
import { newSet, useActs } from '../../undo/acts'
import { ClashCount } from './ClashCount'
import { GroupAddress } from './GroupAddress'
import { NeedFields } from './NeedFields'

type Group = Schema['GroupsGroupBody']

/** What a group is called and how it works: for those who coordinate it. */
export function GroupSettings({ group }: { group: Group }) {
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
      await writeGroup(group.id, group.version, settingsOf(wish), act)
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
        <TextLink to={`/groups/${group.id}/people`}>People</TextLink>
        {group.coordinates && (
          <TextLink to={`/groups/${group.id}/access`}>Who may see and change what</TextLink>
        )}
        <TextLink to={`/groups/${group.id}/noticeboards`}>Noticeboards</TextLink>
        <TextLink to="/bin">Bin</TextLink>
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
        <GroupAddress
          group={group}
          value={wish.shortName}
          problem={fieldProblem(error, 'shortName')}
          onChange={(shortName) => set({ shortName })}
        />
        <fieldset disabled={!group.coordinates} className="grid gap-2">
          <legend className="mb-1 font-head text-lg font-bold">Cover</legend>
          <Note>
            How many have to be there on each weekday: of everybody, or of some, in some hours. The roster
            counts who is, and says where they are too few.
          </Note>
          <NeedFields groupId={group.id} needs={wish.cover} onChange={(cover) => set({ cover })} />
          {fieldProblem(error, 'cover') && <Alert>{fieldProblem(error, 'cover')}</Alert>}
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
            <TextLink to={`/groups/${group.id}/cover`}>Who is away, month by month</TextLink>
            <TextLink to={`/groups/${group.id}/absences`}>Days away in a year</TextLink>
          </p>
        </fieldset>
        <FormProblem
          error={error}
          fields={['name', 'zone', 'firstDay', 'dayEnds', 'cover', 'daysOff', 'shortName']}
        />
        {group.coordinates ? (
          <>
            <div>
              <Button type="submit" look="main">
                Save settings
              </Button>
            </div>
            <Note>
              To hand the group over, make somebody else a coordinator{' '}
              <TextLink to={`/groups/${group.id}/people`}>among its people</TextLink>, then take yourself out
              of the coordinators. A group always keeps one.
            </Note>
          </>
        ) : (
          <p className="text-cement-700">Those who coordinate the group can change this.</p>
        )}
      </form>
    </div>
  )
}
