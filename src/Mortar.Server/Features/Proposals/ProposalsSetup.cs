using Microsoft.AspNetCore.Http.HttpResults;
using Mortar.Core.Availability;
using Mortar.Core.Proposals;
using Mortar.Core.Time;
using Mortar.Core.Words;
using Mortar.Data.Availability;
using Mortar.Data.People;
using Mortar.Data.Proposals;
using Mortar.Data.Store;
using Mortar.Server.Hosting;
using NodaTime;

namespace Mortar.Server.Features.Proposals;

/// <summary>/api/proposals: several times put to people as one question, what they say to them, and the one that is settled.</summary>
internal static class ProposalsSetup
{
    /// <param name="Times">Each on the clock of who proposes.</param>
    /// <param name="PersonIds">Who is asked.</param>
    internal sealed record NewBody(
        Guid CalendarId,
        string? Title,
        string? Place,
        string? Notes,
        IReadOnlyList<StretchBody> Times,
        IReadOnlyList<Guid> PersonIds
    );

    internal sealed record StretchBody(LocalDateTime Start, LocalDateTime End);

    /// <param name="At">What names the time: when it begins.</param>
    internal sealed record SettleBody(Instant At);

    /// <param name="EventId">What it became.</param>
    internal sealed record SettledBody(Guid EventId);

    /// <param name="Said">What they say, of each time or of some.</param>
    /// <param name="For">A member whose guardian one is; <c>null</c> for oneself.</param>
    internal sealed record SuitsBody(IReadOnlyList<SuitBody> Said, string? Comment = null, Guid? For = null);

    internal sealed record SuitBody(Instant At, Suiting Suits);

    /// <param name="Waiting">What one is asked.</param>
    /// <param name="ToSettle">What one can settle.</param>
    internal sealed record Body(IReadOnlyList<AskedBody> Waiting, IReadOnlyList<CountedBody> ToSettle);

    /// <summary>Which times suit somebody.</summary>
    /// <param name="Whose">Who is asked.</param>
    /// <param name="Name">Their name; <c>null</c> for oneself.</param>
    /// <param name="Comment">What they wrote so far.</param>
    internal sealed record AskedBody(
        Guid Id,
        Guid Whose,
        string? Name,
        string From,
        string Title,
        string Place,
        string Notes,
        IReadOnlyList<TimeBody> Times,
        string Comment
    );

    /// <param name="Start">When it begins, on the reader's clock.</param>
    /// <param name="Said">What was said of it; <c>null</c> for nothing.</param>
    /// <param name="Presence">How who is asked stands to it by their calendars, as far as the reader knows; <c>null</c> where that is not told.</param>
    internal sealed record TimeBody(
        Instant At,
        LocalDateTime Start,
        LocalDateTime End,
        Suiting? Said,
        Presence? Presence
    );

    /// <param name="Best">The time that suits best; <c>null</c> while nobody has answered.</param>
    internal sealed record CountedBody(
        Guid Id,
        Guid CalendarId,
        string CalendarName,
        string Title,
        string Place,
        IReadOnlyList<PersonBody> People,
        IReadOnlyList<TallyBody> Times,
        Instant? Best
    );

    internal sealed record PersonBody(Guid Id, string Name, string Comment);

    internal sealed record TallyBody(
        Instant At,
        LocalDateTime Start,
        LocalDateTime End,
        IReadOnlyList<Guid> Suits,
        IReadOnlyList<Guid> WouldDo,
        IReadOnlyList<Guid> DoesNotSuit,
        IReadOnlyList<Guid> Silent
    );

    public static void AddProposals(this IServiceCollection services) => services.AddScoped<ProposalCommands>();

    public static void MapProposals(this RouteGroupBuilder api)
    {
        api.MapGet("/proposals", Read).WithName("ReadProposals");
        var one = api.MapGroup("/proposals/{proposalId:guid}");
        one.MapPut("/", Propose).WithName("Propose");
        one.MapDelete("/", Withdraw).WithName("WithdrawProposal");
        one.MapPost("/ask-again", AskAgain).WithName("AskAgainWhichSuits");
        one.MapPost("/settle", Settle).WithName("SettleProposal");
        one.MapPut("/suits", Say).WithName("SayWhichSuits");
        SuitsByMail.Map(api);
    }

    private static async Task<Ok<Body>> Read(
        Acting acting,
        MortarDb db,
        TimesReader times,
        ZoneClock zones,
        CancellationToken cancellationToken
    )
    {
        var zone = await db.ZoneOf(acting.Person, zones, cancellationToken);
        var waiting = new List<AskedBody>();
        foreach (var one in await db.ProposalsWaiting(acting.Person, cancellationToken))
        {
            var presence = await Presences(acting.Person, one, times, zone, cancellationToken);
            var name =
                one.Whose == acting.Person ? null : (await db.People.FindAsync([one.Whose], cancellationToken))?.Name;
            waiting.Add(Of(one, name, zone, presence));
        }

        return TypedResults.Ok(
            new Body(
                waiting,
                [.. (await db.ProposalsToSettle(acting.Person, cancellationToken)).Select(one => Of(one, zone))]
            )
        );
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> Propose(
        ProposalId proposalId,
        NewBody body,
        Acting acting,
        MortarDb db,
        ProposalCommands proposals,
        ZoneClock zones,
        CancellationToken cancellationToken
    )
    {
        var zone = await db.ZoneOf(acting.Person, zones, cancellationToken);
        return await proposals
            .Propose(
                acting.Act,
                proposalId,
                new ProposalWish(
                    new CalendarId(body.CalendarId),
                    body.Title,
                    body.Place,
                    body.Notes,
                    [
                        .. body.Times.Select(time => new ProposedTime(
                            ZoneClock.At(time.Start, zone),
                            ZoneClock.At(time.End, zone)
                        )),
                    ],
                    [.. body.PersonIds.Select(id => new PersonId(id))]
                ),
                cancellationToken
            )
            .Answer();
    }

    private static Task<Results<NoContent, ProblemHttpResult>> Withdraw(
        ProposalId proposalId,
        Acting acting,
        ProposalCommands proposals,
        CancellationToken cancellationToken
    ) => proposals.Withdraw(acting.Act, proposalId, cancellationToken).Answer();

    private static Task<Results<NoContent, ProblemHttpResult>> AskAgain(
        ProposalId proposalId,
        Acting acting,
        ProposalCommands proposals,
        CancellationToken cancellationToken
    ) => proposals.AskAgain(acting.Act, proposalId, cancellationToken).Answer();

    private static Task<Results<Ok<SettledBody>, ProblemHttpResult>> Settle(
        ProposalId proposalId,
        SettleBody body,
        Acting acting,
        ProposalCommands proposals,
        CancellationToken cancellationToken
    ) =>
        proposals
            .Settle(acting.Act, proposalId, body.At, cancellationToken)
            .Answer(row => Task.FromResult(new SettledBody(row.EventId!.Value.Value)));

    private static Task<Results<NoContent, ProblemHttpResult>> Say(
        ProposalId proposalId,
        SuitsBody body,
        Acting acting,
        ProposalCommands proposals,
        CancellationToken cancellationToken
    ) =>
        proposals
            .Say(
                acting.Act,
                proposalId,
                body.For is { } ward ? new PersonId(ward) : acting.Person,
                Wish(body),
                cancellationToken
            )
            .Answer();

    internal static SuitingsWish Wish(SuitsBody body) =>
        new(body.Said.DistinctBy(one => one.At).ToDictionary(one => one.At, one => one.Suits), body.Comment);

    /// <summary>What is asked, on somebody's clock.</summary>
    internal static AskedBody Of(
        WaitingProposal one,
        string? name,
        DateTimeZone zone,
        IReadOnlyDictionary<Instant, Presence> presence
    )
    {
        var said = one.Said?.ToCore().Said;
        return new AskedBody(
            one.Row.Id.Value,
            one.Whose.Value,
            name,
            one.From,
            one.Row.Title,
            one.Row.Place,
            one.Row.Notes,
            [
                .. one
                    .Row.ToTimes()
                    .Select(time => new TimeBody(
                        time.Start,
                        Local(time.Start, zone),
                        Local(time.End, zone),
                        said is not null && said.TryGetValue(time.Start, out var how) ? how : null,
                        presence.TryGetValue(time.Start, out var known) ? known : null
                    )),
            ],
            one.Said?.Comment ?? string.Empty
        );
    }

    private static async Task<IReadOnlyDictionary<Instant, Presence>> Presences(
        PersonId reader,
        WaitingProposal one,
        TimesReader times,
        DateTimeZone zone,
        CancellationToken cancellationToken
    )
    {
        var proposed = one.Row.ToTimes();
        var window = new Window(
            Local(proposed.Min(time => time.Start), zone).Date,
            Local(proposed.Max(time => time.End), zone).Date,
            zone
        );
        if (Ranges.WhyNot(window.First, window.Last) is not null)
        {
            return new Dictionary<Instant, Presence>();
        }

        var who = Participant.Of(one.Whose);
        var known = await times.Read(reader, [who], window, new TimesScope(), cancellationToken);
        var invited = known.Select(person => person.Invited(Need.Required)).ToList();
        return invited.Count == 0
            ? new Dictionary<Instant, Presence>()
            : proposed.ToDictionary(
                time => time.Start,
                time => FreeAt.Ask(invited, new Interval(time.Start, time.End))[who]
            );
    }

    private static CountedBody Of(CountedProposal one, DateTimeZone zone) =>
        new(
            one.Row.Id.Value,
            one.Row.CalendarId.Value,
            one.CalendarName,
            one.Row.Title,
            one.Row.Place,
            [
                .. one
                    .Names.OrderBy(name => name.Value, StringComparer.CurrentCulture)
                    .Select(name => new PersonBody(
                        name.Key.Value,
                        name.Value,
                        one.Words.GetValueOrDefault(name.Key, string.Empty)
                    )),
            ],
            [
                .. one.Tallies.Select(tally => new TallyBody(
                    tally.Time.Start,
                    Local(tally.Time.Start, zone),
                    Local(tally.Time.End, zone),
                    Ids(tally.Suits),
                    Ids(tally.WouldDo),
                    Ids(tally.DoesNotSuit),
                    Ids(tally.Silent)
                )),
            ],
            ProposalRules.Best(one.Tallies)?.Time.Start
        );

    private static IReadOnlyList<Guid> Ids(IEnumerable<PersonId> people) => [.. people.Select(id => id.Value)];

    private static LocalDateTime Local(Instant instant, DateTimeZone zone) => instant.InZone(zone).LocalDateTime;
}
