import type { Schema } from '../../api/client'
import { inviteMember, setCoordinates } from '../../model/groupQueries'
import { momentText } from '../../reader/dates'
import { Button } from '../../ui/Button'
import { Check } from '../../ui/Check'
import type { useChange } from '../../undo/useChange'

type Member = Schema['GroupsMemberBody']

interface MemberLineProps {
  group: Schema['GroupsGroupBody']
  member: Member
  isMe: boolean
  onChange: ReturnType<typeof useChange>['mutate']
  onCorrect: () => void
  onGuardians: () => void
  onEnd: () => void
}

/** Who somebody in a group is; for those who keep it, what can be done. */
export function MemberLine(props: MemberLineProps) {
  const { group, member, isMe, onEnd } = props
  return (
    <div className="flex flex-wrap items-center gap-x-4 gap-y-1">
      <div className="min-w-48 flex-1">
        <p className="written font-bold">
          {member.name}
          {isMe && ' (you)'}
        </p>
        <p className="written text-[12px] text-cement-700">
          {stateOf(member, group.coordinates)}
          {guardiansText(member)}
        </p>
      </div>
      {group.coordinates ? (
        <Kept {...props} />
      ) : (
        <>
          {member.coordinates && <span className="text-[13px]">coordinates</span>}
          {isMe && (
            <Button look="link" onClick={onEnd}>
              Leave
            </Button>
          )}
        </>
      )}
    </div>
  )
}

/** What whoever keeps the group can do with somebody in it. */
function Kept({ group, member, isMe, onChange, onCorrect, onGuardians, onEnd }: MemberLineProps) {
  return (
    <>
      {member.hasAccount ? (
        <Check
          label="coordinates"
          checked={member.coordinates}
          onChange={(coordinates) =>
            onChange({
              act: (set) => setCoordinates(group.id, member.personId, coordinates, set),
              sentence: coordinates
                ? `${member.name} coordinates “${group.name}” now.`
                : `${member.name} no longer coordinates “${group.name}”.`,
            })
          }
        />
      ) : (
        <>
          <Button look="link" onClick={onCorrect}>
            Correct
          </Button>
          {member.invitedAt && (
            <Button
              look="link"
              onClick={() =>
                onChange({
                  act: (set) => inviteMember(group.id, member.personId, set),
                  sentence: `Sent to ${member.address} again. The link sent before leads nowhere now.`,
                  isFinal: true,
                })
              }
            >
              Send again
            </Button>
          )}
        </>
      )}
      {group.hasGuardians && (
        <Button look="link" onClick={onGuardians}>
          Guardians<span className="sr-only"> of {member.name}</span>
        </Button>
      )}
      <Button look="link" onClick={onEnd}>
        {isMe ? 'Leave' : 'Take out'}
      </Button>
    </>
  )
}

/** Who sees and answers for somebody, and who would, once all who are asked say yes. */
function guardiansText({ guardians }: Member): string {
  const listed = (isAsked: boolean) =>
    guardians
      .filter((one) => one.isAsked === isAsked)
      .map((one) => one.name)
      .join(' and ')
  const [now, asked] = [listed(false), listed(true)]
  return [
    now && `; ${now} ${now.includes(' and ') ? 'see and answer' : 'sees and answers'} for them`,
    asked && `; asked whether ${asked} may see and answer for them`,
  ]
    .filter(Boolean)
    .join('')
}

/** Where somebody stands: with an account, invited, or a name alone. */
function stateOf(member: Member, isKept: boolean): string {
  if (member.hasAccount) return member.address ?? 'has an account'
  if (!isKept) return 'without an account'
  if (!member.address) return 'a name without an account'
  return member.invitedAt
    ? `${member.address}, invited ${momentText(member.invitedAt)}, not here yet`
    : `${member.address}, not invited`
}
