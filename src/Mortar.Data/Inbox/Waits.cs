using Mortar.Core.Letters;
using Mortar.Core.Words;
using Mortar.Data.Answers;
using Mortar.Data.Proposals;

namespace Mortar.Data.Inbox;

/// <summary>Something that somebody asks one, in a sentence.</summary>
/// <param name="Key">The same as long as it waits, and of nothing else.</param>
/// <param name="Sentence">What is asked.</param>
public sealed record AskLine(string Key, string Sentence);

/// <summary>All that waits for somebody's answer.</summary>
/// <param name="Names">The names of those for whom they answer.</param>
public sealed record Waits(
    PersonId Person,
    IReadOnlyList<WaitingMembership> Memberships,
    IReadOnlyList<WaitingGuardianship> Guardianships,
    IReadOnlyList<WaitingGuest> Guests,
    IReadOnlyList<WaitingInvitation> Invitations,
    IReadOnlyList<WaitingAsk> Asks,
    IReadOnlyList<WaitingOpenAsk> OpenAsks,
    IReadOnlyList<Question> Questions,
    IReadOnlyList<WaitingAbsence> Absences,
    IReadOnlyList<WaitingProposal> Proposals,
    IReadOnlyDictionary<PersonId, string> Names
)
{
    /// <summary>How many of each sort.</summary>
    public IEnumerable<int> Counts =>
        [
            Memberships.Count,
            Guardianships.Count,
            Guests.Count,
            Invitations.Count,
            Asks.Count,
            OpenAsks.Count,
            Questions.Count,
            Absences.Count,
            Proposals.Count,
        ];

    /// <summary>Each in a sentence.</summary>
    public IEnumerable<AskLine> Lines() =>
        [
            .. Memberships.Select(one => new AskLine(
                $"member/{one.GroupId.Value}",
                AskSentence.OfMembership(one.From, one.GroupName)
            )),
            .. Guardianships.Select(one => new AskLine(
                $"guardian/{one.Id}",
                AskSentence.OfGuardianship(one.From, one.GroupName, one.Ward, one.Guardian)
            )),
            .. Guests.Select(one => new AskLine(
                $"guest/{one.PersonId.Value}",
                AskSentence.OfGuest(one.From, one.GroupName)
            )),
            .. Invitations.Select(one => new AskLine(
                $"invitation/{one.Id.Value}",
                AskSentence.OfInvitation(one.From, one.CalendarName)
            )),
            .. Asks.Select(one => new AskLine($"ask/{one.Id.Value}", AskSentence.OfAsk(one.From, one.CalendarName))),
            .. OpenAsks.Select(one => new AskLine(
                $"ask/{one.Id.Value}",
                AskSentence.OfOpenAsk(one.From, one.GroupName)
            )),
            .. Questions.Select(one => new AskLine(
                $"question/{one.Next.Id.Value}/{one.Whose.Value}",
                AskSentence.OfQuestion(one.Next.Title, Whose(one.Whose))
            )),
            .. Absences.Select(one => new AskLine(
                $"absence/{one.Next.Id.Value}",
                AskSentence.OfAbsence(one.Next.Title, one.Names)
            )),
            .. Proposals
                .Where(one => one.Said is null)
                .Select(one => new AskLine(
                    $"proposal/{one.Row.Id.Value}/{one.Whose.Value}",
                    AskSentence.OfProposal(one.Row.Title, Whose(one.Whose))
                )),
        ];

    private string? Whose(PersonId whose) => whose == Person ? null : Names.GetValueOrDefault(whose);
}
