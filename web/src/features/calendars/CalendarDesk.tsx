import { useQueryClient } from '@tanstack/react-query'
import { type ReactNode, useState } from 'react'
import { Link } from 'react-router'
import { endAccess } from '../../model/accessQueries'
import type { Layer } from '../../model/bricks'
import { writeCalendar } from '../../model/calendarQueries'
import { canHaveMore, roleName } from '../../model/ladder'
import { useReader } from '../../reader/person'
import { Button } from '../../ui/Button'
import { Desk } from '../../ui/Desk'
import { MarkBlock } from '../../ui/MarkSign'
import { Question } from '../../ui/Question'
import { TextLink } from '../../ui/TextLink'
import { newSet, useActs } from '../../undo/acts'
import { AccessList, AskForm, GiveForm, GiveGroupForm, HistoryPart } from '../access'
import { ImportSteps } from '../imports'
import { WebPart } from '../webcalendars'
import { CalendarForm } from './CalendarForm'
import { DeleteCalendar } from './DeleteCalendar'

/** The parts of a calendar's page on the desk. */
export type CalendarPart = 'about' | 'access' | 'import' | 'settings'

interface CalendarDeskProps {
  layer: Layer
  part: CalendarPart
  onPart: (part: CalendarPart) => void
  onClose: () => void
}

const ways = {
  own: 'given to you',
  group: 'by a group you are in',
  default: 'as every member of the group',
  link: 'by a link',
  guardian: 'as a guardian',
}

/** One calendar on the desk: what it is, who has access, a file into it, its settings. */
export function CalendarDesk({ layer, part, onPart, onClose }: CalendarDeskProps) {
  const parts: { value: CalendarPart; label: string; shown: boolean }[] = [
    { value: 'about', label: 'About', shown: true },
    { value: 'access', label: 'Access', shown: layer.may.coordinate },
    { value: 'import', label: 'Import', shown: layer.may.add },
    { value: 'settings', label: 'Settings', shown: layer.may.coordinate },
  ]
  const open = parts.find((one) => one.value === part && one.shown)?.value ?? 'about'
  return (
    <Desk title={layer.name} onClose={onClose}>
      <nav
        aria-label="Parts of the calendar"
        data-hue={layer.hue}
        className="mb-4 flex items-stretch border-b-2 border-layer-edge"
      >
        <span className="flex text-layer-text">
          <MarkBlock mark={layer.mark} size={26} />
        </span>
        {parts
          .filter((one) => one.shown)
          .map((one) => (
            <button
              key={one.value}
              type="button"
              aria-current={one.value === open ? 'page' : undefined}
              onClick={() => onPart(one.value)}
              className="px-2.5 py-1.5 aria-[current=page]:bg-layer-tint aria-[current=page]:font-bold aria-[current=page]:text-layer-text"
            >
              {one.label}
            </button>
          ))}
      </nav>
      {open === 'about' && <About layer={layer} onPart={onPart} onClose={onClose} />}
      {open === 'access' && (
        <>
          <GiveForm layer={layer} />
          <GiveGroupForm layer={layer} />
          <h3 className="mt-6 mb-2 text-base">Who has access</h3>
          <AccessList layer={layer} />
          <Link to={`/groups/${layer.groupId}/access`} className="mt-3 block underline underline-offset-2">
            All access in {layer.groupName} as a table
          </Link>
          <History calendarId={layer.calendarId} />
        </>
      )}
      {open === 'import' && <ImportSteps layer={layer} />}
      {open === 'settings' && <Settings layer={layer} onClose={onClose} />}
    </Desk>
  )
}

/** Who gave what to whom, when somebody wants to know. */
function History({ calendarId }: { calendarId: string }) {
  const [open, setOpen] = useState(false)
  return (
    <section aria-label="History of access" className="mt-6 grid gap-2">
      <h3 className="text-base">Who gave what to whom</h3>
      {open ? (
        <HistoryPart of={{ calendarId }} />
      ) : (
        <div>
          <Button onClick={() => setOpen(true)}>Show the history</Button>
        </div>
      )}
    </section>
  )
}

function About({
  layer,
  onPart,
  onClose,
}: {
  layer: Layer
  onPart: (part: CalendarPart) => void
  onClose: () => void
}) {
  const queries = useQueryClient()
  const acts = useActs()
  const { person } = useReader()
  const [leaving, setLeaving] = useState(false)
  const leave = async () => {
    setLeaving(false)
    const set = newSet()
    await endAccess(layer.calendarId, person.id, set)
    acts.done(
      layer.stays === 'none'
        ? `You left “${layer.name}”. It is gone from your wall only.`
        : `You gave up what was given to you on “${layer.name}”. ${roleName(layer.stays)} stays, which comes by another way.`,
    )
    onClose()
    await queries.invalidateQueries()
  }
  return (
    <div className="grid gap-4">
      <p className="written whitespace-pre-line">
        {layer.description || <span className="text-cement-700">No description.</span>}
      </p>
      {layer.web && layer.may.export && <WebPart layer={layer} />}
      <dl className="grid grid-cols-[5rem_1fr] gap-y-1">
        <Row name="Group">{layer.groupName}</Row>
        <Row name="Your step">
          {roleName(layer.role)}, {layer.ways.map((way) => ways[way]).join(' and ')}
        </Row>
        <Row name="Time zone">{layer.zone}</Row>
      </dl>
      <div className="grid justify-items-start gap-2">
        {layer.may.coordinate && <Button onClick={() => onPart('access')}>Give access</Button>}
        {layer.may.add && <Button onClick={() => onPart('import')}>Import a file</Button>}
        {layer.may.export && (
          <a
            href={`/api/calendars/${layer.calendarId}/export`}
            download
            className="rounded-control border border-cement-500 bg-surface px-3 py-1.5 hover:bg-cement-100"
          >
            Export as a file (.ics)
          </a>
        )}
        {layer.may.history && (
          <TextLink to={`/calendars/${layer.calendarId}/history`}>What was done in it</TextLink>
        )}
        <TextLink to={`/preferences?feed=${layer.calendarId}`}>Keep it in my calendar program</TextLink>
        {canHaveMore(layer) && <AskForMore layer={layer} />}
        {(layer.ways.includes('own') || layer.ways.includes('link')) && (
          <Button look="danger" onClick={() => setLeaving(true)}>
            Leave this calendar
          </Button>
        )}
      </div>
      {leaving && (
        <Question
          title={`Leave “${layer.name}”?`}
          yes="Leave"
          no="Stay"
          onYes={() => void leave().catch(acts.failed)}
          onClose={() => setLeaving(false)}
        >
          {layer.stays === 'none'
            ? 'It goes from your wall only, and what you added stays. To come back, a coordinator has to invite you again.'
            : `You keep ${roleName(layer.stays)}, which comes by another way, so it stays on your wall. What you added stays. To have more again, a coordinator has to give it to you.`}
        </Question>
      )}
    </div>
  )
}

/** Asks those who coordinate it for a higher step than one has. */
function AskForMore({ layer }: { layer: Layer }) {
  const [asking, setAsking] = useState(false)
  return asking ? (
    <AskForm calendarIds={[layer.calendarId]} above={layer.role} onAsked={() => setAsking(false)} />
  ) : (
    <Button onClick={() => setAsking(true)}>Ask for more than {roleName(layer.role)}</Button>
  )
}

function Row({ name, children }: { name: string; children: ReactNode }) {
  return (
    <>
      <dt className="text-cement-700">{name}</dt>
      <dd className="written">{children}</dd>
    </>
  )
}

function Settings({ layer, onClose }: { layer: Layer; onClose: () => void }) {
  const queries = useQueryClient()
  const acts = useActs()
  return (
    <div className="grid gap-6">
      <CalendarForm
        key={layer.version}
        start={{
          ...layer,
          groupId: layer.groupId ?? '',
          ...layer.calendar,
          groupDefault: layer.groupDefault ?? 'none',
        }}
        isNew={false}
        isFromWeb={layer.web !== null}
        groupName={layer.groupName ?? ''}
        onSave={async (settings) => {
          const set = newSet()
          await writeCalendar(layer.calendarId, layer.version, settings, set)
          acts.done(`Changed the settings of “${settings.name.trim()}”.`, set)
          await queries.invalidateQueries({ queryKey: ['shelf'] })
        }}
      />
      <DeleteCalendar layer={layer} onDeleted={onClose} />
    </div>
  )
}
