import type { ReactNode } from 'react'
import type { Schema } from '../../api/client'
import { answerGuardianship, answerMembership } from '../../model/membershipQueries'
import { momentText } from '../../reader/dates'
import { Button } from '../../ui/Button'
import { Card } from '../../ui/Card'
import { useAct } from '../../undo/useAct'

/** A group asks whether one wants to be in it: what that means, and yes or no. */
export function MembershipCard({ asked }: { asked: Schema['InboxMembershipBody'] }) {
  return (
    <ConsentCard
      title={`${asked.from} asks whether you want to be in “${asked.groupName}”`}
      askedAt={asked.askedAt}
      yes="Join"
      act={(yes, set) => answerMembership(asked.groupId, yes, set)}
      said={(yes) =>
        yes
          ? `You are in “${asked.groupName}” now.`
          : `You said no. “${asked.groupName}” does not ask you again for 30 days.`
      }
    >
      Its members will find you by your name, and see when you are busy only if you let people of your groups
      know that. Its coordinators will also see your mail address. You can leave at any time; until you say
      yes it is told nothing of you.
    </ConsentCard>
  )
}

/** Whether somebody sees and answers for somebody in a group: asked of the one it is about, or of the one who would do it. */
export function GuardianshipCard({ asked }: { asked: Schema['InboxGuardianshipBody'] }) {
  const whom = asked.ward ?? 'you'
  return asked.guardian === null ? (
    <ConsentCard
      title={`${asked.from} asks whether you will see and answer for ${whom} in “${asked.groupName}”`}
      askedAt={asked.askedAt}
      yes="Yes, I will"
      act={(yes, set) => answerGuardianship(asked.id, yes, set)}
      said={(yes) =>
        yes
          ? `You see and answer for ${whom} in “${asked.groupName}” now.`
          : `You do not see and answer for ${whom}.`
      }
    >
      You will see what {whom} sees in this group, up to View, and answer what they are asked there.
    </ConsentCard>
  ) : (
    <ConsentCard
      title={
        asked.from === asked.guardian
          ? `${asked.from} asks to see and answer for you in “${asked.groupName}”`
          : `${asked.from} asks whether ${asked.guardian} may see and answer for you in “${asked.groupName}”`
      }
      askedAt={asked.askedAt}
      yes="Yes, they may"
      act={(yes, set) => answerGuardianship(asked.id, yes, set)}
      said={(yes) =>
        yes
          ? `${asked.guardian} sees and answers for you in “${asked.groupName}” now.`
          : `${asked.guardian} does not see and answer for you.`
      }
    >
      {asked.guardian} will see what you see in this group, up to View, and can answer what you are asked
      there. In no other group.
    </ConsentCard>
  )
}

interface ConsentCardProps {
  title: string
  askedAt: string
  children: ReactNode
  yes: string
  act: (yes: boolean, set: string) => Promise<unknown>
  said: (yes: boolean) => string
}

function ConsentCard({ title, askedAt, children, yes, act, said }: ConsentCardProps) {
  const answer = useAct({
    run: (isYes: boolean, set) => act(isYes, set),
    say: (_, isYes) => said(isYes),
    freshen: ['shelf', 'inbox'],
  })
  return (
    <Card>
      <h2 className="written text-lg">{title}</h2>
      <p className="written max-w-prose text-cement-700">{children}</p>
      <div className="flex flex-wrap items-center gap-2">
        <Button look="main" disabled={answer.isPending} onClick={() => answer.mutate(true)}>
          {yes}
        </Button>
        <Button disabled={answer.isPending} onClick={() => answer.mutate(false)}>
          Say no
        </Button>
        <span className="ml-auto text-[12px] text-cement-600">{momentText(askedAt)}</span>
      </div>
    </Card>
  )
}
