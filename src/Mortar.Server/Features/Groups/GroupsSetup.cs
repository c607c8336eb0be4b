using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;
using Mortar.Core.Access;
using Mortar.Core.Calendars;
using Mortar.Core.Groups;
using Mortar.Core.Time;
using Mortar.Core.Words;
using Mortar.Data.Groups;
using Mortar.Data.Store;
using Mortar.Server.Hosting;
using NodaTime;

namespace Mortar.Server.Features.Groups;

/// <summary>/api/groups: the groups one is in, making one, who is in it.</summary>
internal static class GroupsSetup
{
    /// <param name="DayBegins">When usual hours begin, in minutes of the day.</param>
    /// <param name="DayEnds">When they end.</param>
    /// <param name="Cover">How many of whom are needed when.</param>
    /// <param name="DaysOff">The calendar whose whole days are days off for all.</param>
    /// <param name="Defaults">What every member gets on a new calendar, as the sort of the group has it.</param>
    /// <param name="HasGuardians">Whether its members are offered to be given some.</param>
    /// <param name="ShortName">The name in its short address, <c>/g/name</c>; empty for none.</param>
    /// <param name="RestsSince">Since when it is at rest: read and not changed, and off the walls; <c>null</c> while it is at work.</param>
    internal sealed record GroupBody(
        Guid Id,
        string Name,
        GroupSort Sort,
        string Zone,
        IsoDayOfWeek FirstDay,
        int DayBegins,
        int DayEnds,
        DefaultsBody Defaults,
        IReadOnlyList<NeedBody> Cover,
        Guid? DaysOff,
        bool HasGuardians,
        bool Coordinates,
        string ShortName,
        Instant? RestsSince,
        int Version
    )
    {
        internal static GroupBody Of(GroupRow row, bool coordinates) =>
            new(
                row.Id.Value,
                row.Name,
                row.Sort,
                row.Zone,
                row.FirstDay,
                row.DayBegins,
                row.DayEnds,
                new DefaultsBody(
                    row.Sort.DefaultStep(Purpose.Events),
                    row.Sort.DefaultStep(Purpose.Away),
                    row.Sort.DefaultStep(Purpose.Place)
                ),
                [.. row.ToSettings().Cover.Select(NeedBody.Of)],
                row.DaysOff?.Value,
                row.Sort.HasGuardians(),
                coordinates,
                row.Address ?? string.Empty,
                row.RestsSince,
                row.Version
            );
    }

    /// <summary>The step for each purpose a calendar can have.</summary>
    internal sealed record DefaultsBody(Role Events, Role Away, Role Place);

    internal sealed record SettingsBody(
        string Name,
        GroupSort Sort,
        string Zone,
        IsoDayOfWeek FirstDay,
        int DayBegins = 480,
        int DayEnds = 1_140,
        IReadOnlyList<NeedBody>? Cover = null,
        Guid? DaysOff = null,
        string? ShortName = null
    );

    /// <param name="Name">What the new group is called.</param>
    internal sealed record LikeBody(string Name);

    /// <param name="Calendars">How many calendars it has.</param>
    /// <param name="LeftOut">How many of the other it has not: of one person, or that one does not read.</param>
    internal sealed record MadeLikeBody(GroupBody Group, int Calendars, int LeftOut);

    /// <param name="Name">Empty for that of the group as a whole.</param>
    /// <param name="Begins">From when on, in minutes of the day; <c>null</c> for whole days.</param>
    /// <param name="Ends">Until when.</param>
    /// <param name="People">Those of whom so many are needed; nobody for every member.</param>
    /// <param name="Days">The number for each weekday, from Monday to Sunday.</param>
    internal sealed record NeedBody(
        string Name,
        IReadOnlyList<Guid> People,
        IReadOnlyList<int> Days,
        int? Begins = null,
        int? Ends = null
    )
    {
        internal static NeedBody Of(CoverNeed need) =>
            new(
                need.Name,
                [.. need.People.Select(one => one.Value)],
                need.FromMonday,
                need.Part.IsWhole ? null : Minutes(need.Part.Begins),
                need.Part.Ends is { } ends ? Minutes(ends) : null
            );

        internal CoverNeed ToCore() =>
            new([.. Days])
            {
                Name = Name,
                Part = Begins is null && Ends is null ? DayPart.Whole : new DayPart(Time(Begins ?? 0), Until(Ends)),
                People = [.. People.Select(id => new PersonId(id))],
            };

        private static int Minutes(LocalTime time) => (time.Hour * 60) + time.Minute;

        private static LocalTime Time(int minutes) => LocalTime.FromMinutesSinceMidnight(Math.Clamp(minutes, 0, 1_439));

        private static LocalTime? Until(int? minutes) => minutes is { } one and < 1_440 ? Time(one) : null;
    }

    /// <param name="Address">Told to coordinators of the group only.</param>
    /// <param name="HasAccount">Whether they can sign in; a name that was claimed, or somebody who came by themselves.</param>
    /// <param name="ShowsBusy">Whether they let people of their groups see when they are busy.</param>
    /// <param name="InvitedAt">When a mail to claim the name was sent last; told to coordinators only.</param>
    /// <param name="Guardians">Who sees and answers for them; told to coordinators only.</param>
    internal sealed record MemberBody(
        Guid PersonId,
        string Name,
        ToldAddress? Address,
        string Zone,
        bool Coordinates,
        bool HasAccount,
        bool ShowsBusy,
        Instant? InvitedAt,
        IReadOnlyList<GuardianBody> Guardians
    );

    /// <param name="IsAsked">Whether somebody's yes is waited for; until then they see and answer for nobody.</param>
    internal sealed record GuardianBody(Guid PersonId, string Name, bool IsAsked);

    public static void AddGroups(this IServiceCollection services) =>
        services
            .AddScoped<GroupCommands>()
            .AddScoped<GroupLikeCommands>()
            .AddScoped<GroupEndCommands>()
            .AddScoped<MemberCommands>()
            .AddScoped<ClaimCommands>()
            .AddScoped<MembershipCommands>()
            .AddScoped<GuardianCommands>()
            .AddScoped<GuestCommands>();

    public static void MapGroups(this RouteGroupBuilder api)
    {
        api.MapGet("/groups", List).WithName("ListGroups");
        api.MapPut("/groups/{groupId:guid}", Put).WithName("PutGroup");
        api.MapPut("/groups/{groupId:guid}/like/{modelId:guid}", MakeLike).WithName("MakeGroupLike");
        api.MapGet("/groups/{groupId:guid}/members", Members).WithName("ListMembers");
        EndGroup.Map(api);
        GroupAddresses.Map(api);
        ReadPeople.Map(api);
        ChangeMembers.Map(api);
        Memberships.Map(api);
        Guests.Map(api);
        JoinGroup.Map(api);
    }

    private static async Task<Ok<List<GroupBody>>> List(Acting acting, MortarDb db, CancellationToken cancellationToken)
    {
        var groups =
            from member in db.Members
            where member.PersonId == acting.Person
            join row in db.Groups on member.GroupId equals row.Id
            where row.DeletedAt == null
            orderby member.Coordinates descending, row.Name
            select new { row, member.Coordinates };
        var found = await groups.AsNoTracking().ToListAsync(cancellationToken);
        return TypedResults.Ok(found.ConvertAll(one => GroupBody.Of(one.row, one.Coordinates)));
    }

    /// <summary>Creates without If-Match; changes with it.</summary>
    private static Task<Results<Ok<GroupBody>, ProblemHttpResult>> Put(
        GroupId groupId,
        SettingsBody body,
        [FromHeader(Name = "If-Match")] string? ifMatch,
        Acting acting,
        GroupCommands groups,
        CancellationToken cancellationToken
    ) =>
        groups
            .Put(
                acting.Act,
                groupId,
                Versions.Read(ifMatch),
                new GroupSettings(body.Name, body.Sort, body.Zone, body.FirstDay)
                {
                    DayBegins = LocalTime.FromMinutesSinceMidnight(Math.Clamp(body.DayBegins, 0, 1_439)),
                    DayEnds = LocalTime.FromMinutesSinceMidnight(Math.Clamp(body.DayEnds, 0, 1_439)),
                    Cover = body.Cover is { } cover ? [.. cover.Select(need => need.ToCore())] : default,
                    DaysOff = body.DaysOff is { } daysOff ? new CalendarId(daysOff) : null,
                    Address = body.ShortName,
                },
                cancellationToken
            )
            .Answer(row => Task.FromResult(GroupBody.Of(row, coordinates: true)));

    /// <summary>Makes a group like one that its maker coordinates: its settings and calendars, without people and events.</summary>
    private static Task<Results<Ok<MadeLikeBody>, ProblemHttpResult>> MakeLike(
        GroupId groupId,
        GroupId modelId,
        LikeBody body,
        Acting acting,
        GroupLikeCommands groups,
        CancellationToken cancellationToken
    ) =>
        groups
            .Make(acting.Act, groupId, modelId, body.Name, cancellationToken)
            .Answer(made =>
                Task.FromResult(
                    new MadeLikeBody(GroupBody.Of(made.Group, coordinates: true), made.Calendars, made.LeftOut)
                )
            );

    private static async Task<Results<Ok<List<MemberBody>>, ProblemHttpResult>> Members(
        GroupId groupId,
        Acting acting,
        MortarDb db,
        CancellationToken cancellationToken
    )
    {
        var me = await db.PlaceIn(groupId, acting.Person).AsNoTracking().FirstOrDefaultAsync(cancellationToken);
        if (me is null)
        {
            return Problems.NotThere("group");
        }

        var members =
            from member in db.Members
            where member.GroupId == groupId
            join person in db.People on member.PersonId equals person.Id
            orderby person.Name
            select new { member, person };
        var found = await members.AsNoTracking().ToListAsync(cancellationToken);
        var numbers = found.ConvertAll(one => one.person.Id.Value);
        var accounts = await db
            .Users.Where(account => numbers.Contains(account.Id))
            .Select(account => account.Id)
            .ToHashSetAsync(cancellationToken);
        var guardians = (
            await (
                from guardian in db.GuardiansIn(groupId)
                where me.Coordinates
                join person in db.People on guardian.GuardianId equals person.Id
                orderby person.Name
                select new
                {
                    guardian.WardId,
                    Body = new GuardianBody(
                        person.Id.Value,
                        person.Name,
                        guardian.WardAskedAt != null || guardian.GuardianAskedAt != null
                    ),
                }
            ).ToListAsync(cancellationToken)
        ).ToLookup(one => one.WardId, one => one.Body);
        return TypedResults.Ok(
            found.ConvertAll(one => new MemberBody(
                one.person.Id.Value,
                one.person.Name,
                ToldAddress.OfMember(me.Coordinates, one.person.Address ?? one.member.Address),
                one.person.Zone,
                one.member.Coordinates,
                accounts.Contains(one.person.Id.Value),
                one.person.ToPreferences().ShowsBusy,
                me.Coordinates && one.member.ClaimHash is not null ? one.member.InvitedAt : null,
                [.. guardians[one.person.Id]]
            ))
        );
    }
}
