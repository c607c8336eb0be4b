using CsCheck;
using Mortar.Core.Access;
using NodaTime;
using Xunit;

namespace Mortar.Core.Tests.Access;

/// <summary>The ladder of the product page, step by step.</summary>
public class AccessRulesTests
{
    // none, times, outline, view, add, edit, coordinate; h hidden, d denied, g granted
    [Theory]
    [InlineData("see", "hgggggg")]
    [InlineData("export", "hddgggg")]
    [InlineData("add", "hdddggg")]
    [InlineData("change mine", "hhddggg")]
    [InlineData("change others'", "hhdddgg")]
    [InlineData("coordinate", "hdddddg")]
    [InlineData("end mine", "hgggggg")]
    [InlineData("end others'", "hdddddg")]
    public void Each_step_may_what_the_ladder_says(string what, string expected)
    {
        var verdicts = Enum.GetValues<Role>().Order().Select(role => Ask(what, role));

        Assert.Equal(expected, string.Concat(verdicts.Select(verdict => char.ToLowerInvariant(verdict.ToString()[0]))));
    }

    [Fact]
    public void Each_step_includes_those_before_it()
    {
        string[] questions = ["see", "export", "add", "change mine", "change others'", "coordinate"];

        foreach (var question in questions)
        {
            var granted = Enum.GetValues<Role>()
                .Order()
                .Select(role => Ask(question, role) == Verdict.Granted)
                .ToList();

            Assert.True(granted.SkipWhile(yes => !yes).All(yes => yes), question);
        }
    }

    private static Verdict Ask(string what, Role role) =>
        what switch
        {
            "see" => AccessRules.ToSee(role),
            "export" => AccessRules.ToExport(role),
            "add" => AccessRules.ToAdd(role),
            "change mine" => AccessRules.ToChange(role, Studio.Priya, Studio.Priya),
            "change others'" => AccessRules.ToChange(role, Studio.Priya, Studio.Ines),
            "coordinate" => AccessRules.ToCoordinate(role),
            "end mine" => AccessRules.ToEnd(role, Studio.Priya, Studio.Priya),
            "end others'" => AccessRules.ToEnd(role, Studio.Priya, Studio.Ines),
            _ => throw new ArgumentOutOfRangeException(nameof(what)),
        };

    [Fact]
    public void Of_several_ways_the_highest_counts_and_is_named()
    {
        var standing = Standing.Of(
            [
                new Grant(Role.View, Way.Default),
                new Grant(Role.Edit, Way.Group),
                new Grant(Role.Edit, Way.Own),
                new Grant(Role.Times, Way.Link),
            ],
            Now
        );

        Assert.Equal(Role.Edit, standing.Role);
        Assert.Equal([Way.Own, Way.Group], standing.Ways);
        Assert.Equal(Role.Edit, standing.Stays); // by the group, where the own one ends
    }

    [Fact]
    public void Ended_grants_count_for_nothing()
    {
        Assert.Equal(Standing.Outside, Standing.Of([], Now));
        Assert.Equal(Role.None, Standing.Outside.Stays);
        Assert.Equal(
            Role.None,
            Standing.Of([new Grant(Role.Edit, Way.Own), new Grant(Role.View, Way.Link)], Now).Stays
        );
        Assert.Equal(
            Role.View,
            Standing.Of([new Grant(Role.Edit, Way.Own), new Grant(Role.View, Way.Guardian)], Now).Stays
        );
        Assert.Equal(Standing.Outside, Standing.Of([new Grant(Role.None, Way.Own)], Now));
        Assert.Equal(Standing.Outside, Standing.Of([new Grant(Role.Edit, Way.Own, Now)], Now)); // the end itself is past it
        Assert.Equal(Role.Edit, Standing.Of([new Grant(Role.Edit, Way.Own, Now + Duration.Epsilon)], Now).Role);
    }

    private static readonly Instant Now = Instant.FromUtc(2026, 3, 11, 12, 0);

    private static readonly Gen<Grant> AnyGrant = Gen.Select(
        Gen.Enum<Role>(),
        Gen.Enum<Way>(),
        Gen.Int[-2, 4],
        (role, way, hours) => new Grant(role, way, hours == 4 ? null : Now + Duration.FromHours(hours))
    );

    [Fact]
    public void Another_grant_never_lowers_and_one_less_never_raises() =>
        Gen.Select(AnyGrant.List[0, 6], AnyGrant)
            .Sample((grants, more) => Standing.Of([.. grants, more], Now).Role >= Standing.Of(grants, Now).Role);

    [Fact]
    public void The_step_is_the_highest_that_counts_and_the_ways_lead_to_it() =>
        AnyGrant
            .List[0, 8]
            .Sample(grants =>
            {
                var standing = Standing.Of(grants, Now);
                var counting = grants.Where(grant => grant.EndsAt is not { } end || end > Now).ToList();
                var highest = counting.Select(grant => grant.Role).DefaultIfEmpty(Role.None).Max();

                Assert.Equal(highest, standing.Role);
                Assert.Equal(
                    highest == Role.None
                        ? []
                        : counting.Where(grant => grant.Role == highest).Select(grant => grant.Way).Distinct().Order(),
                    standing.Ways
                );
            });

    [Fact]
    public void When_time_goes_on_a_standing_only_falls() =>
        Gen.Select(AnyGrant.List[0, 6], Gen.Int[0, 100])
            .Sample(
                (grants, minutes) =>
                    Standing.Of(grants, Now + Duration.FromMinutes(minutes)).Role <= Standing.Of(grants, Now).Role
            );

    [Fact]
    public void Access_up_to_a_day_ends_with_that_day_on_the_calendars_clock()
    {
        var london = Studio.Clock.Zone(Studio.London);
        var friday = new LocalDate(2026, 3, 27);

        var end = AccessEnd.After(friday, london);

        Assert.Equal(Instant.FromUtc(2026, 3, 28, 0, 0), end);
        Assert.Equal(friday, AccessEnd.LastDay(end, london));
        // tz database: clocks go on in the night to 29 March, so that day ends at 23:00 UTC
        Assert.Equal(Instant.FromUtc(2026, 3, 29, 23, 0), AccessEnd.After(new LocalDate(2026, 3, 29), london));
        Assert.True(AccessEnd.Check(friday, end - Duration.Epsilon, london).IsFit);
        Assert.Equal(end, AccessEnd.Check(friday, end - Duration.Epsilon, london).Value);
        Assert.Equal("lastDay", Assert.Single(AccessEnd.Check(friday, end, london).Problems).Path);
        Assert.True(AccessEnd.Check(null, end, london).IsFit);
    }

    [Theory]
    [InlineData(null, true)] // never here
    [InlineData(90 * 24, false)]
    [InlineData((90 * 24) + 1, true)]
    [InlineData(1, false)]
    public void Who_was_not_here_for_90_days_is_worth_a_look(int? hours, bool unseen) =>
        Assert.Equal(unseen, AccessReview.IsUnseen(hours is { } ago ? Now - Duration.FromHours(ago) : null, Now));

    [Theory]
    [InlineData(Role.None, false)]
    [InlineData(Role.Times, true)]
    [InlineData(Role.Edit, true)]
    [InlineData(Role.Coordinate, false)] // coordinators are made, not asked for
    public void One_asks_for_a_step_below_coordinate(Role role, bool fit) =>
        Assert.Equal(fit, Core.Access.Ask.Check(role, "  For the glaze table\r\n").Problems.Count == 0);

    [Fact]
    public void A_note_that_is_too_long_is_named() =>
        Assert.Equal("note", Assert.Single(Core.Access.Ask.Check(Role.View, new string('x', 1_001)).Problems).Path);

    [Theory]
    [InlineData(Role.Edit, true)] // the only coordinator steps down
    [InlineData(Role.None, true)]
    [InlineData(Role.Coordinate, false)]
    public void A_calendar_keeps_a_coordinator(Role next, bool without)
    {
        Assert.Equal(
            without,
            Coordinators.WouldBeLeftWithout(
                [(Studio.Ines, Own(Role.Coordinate)), (Studio.Priya, Own(Role.Edit))],
                Studio.Ines,
                Own(next)
            )
        );
        Assert.False(
            Coordinators.WouldBeLeftWithout(
                [(Studio.Ines, Own(Role.Coordinate)), (Studio.Priya, Own(Role.Coordinate))],
                Studio.Ines,
                Own(next)
            )
        );
    }

    [Fact]
    public void A_coordinator_for_a_time_is_not_the_one_a_calendar_keeps()
    {
        var forToday = new Grant(Role.Coordinate, Way.Own, Now + Duration.FromHours(9));

        Assert.True(Coordinators.WouldBeLeftWithout([(Studio.Ines, Own(Role.Coordinate))], Studio.Ines, forToday));
        Assert.True(
            Coordinators.WouldBeLeftWithout(
                [(Studio.Ines, Own(Role.Coordinate)), (Studio.Priya, forToday)],
                Studio.Ines,
                Own(Role.Edit)
            )
        );
    }

    private static Grant Own(Role role) => new(role, Way.Own);

    [Theory]
    [InlineData(Role.Times, "Priya will see when “Rota” is busy, and nothing else.")]
    [InlineData(Role.Outline, "Priya will see titles and places in “Rota”, not notes.")]
    [InlineData(Role.View, "Priya will see everything in “Rota” and change nothing.")]
    [InlineData(Role.Add, "Priya will see everything in “Rota”, can add events, and can change only those they added.")]
    [InlineData(Role.Edit, "Priya will see everything in “Rota” and can add, change and delete any event.")]
    [InlineData(
        Role.Coordinate,
        "Priya can do everything in “Rota” that you can: change any event, give and take access, and delete the calendar."
    )]
    public void Each_step_says_what_it_means(Role role, string sentence) =>
        Assert.Equal(sentence, RoleSentence.For(["Priya"], role, "Rota"));

    [Fact]
    public void A_sentence_names_a_few_and_counts_the_rest()
    {
        Assert.StartsWith(
            "Priya and Tomasz will",
            RoleSentence.For(["Priya", "Tomasz"], Role.View, "Rota"),
            StringComparison.Ordinal
        );
        Assert.StartsWith(
            "Priya and 3 others will",
            RoleSentence.For(["Priya", "Tomasz", "Dele", "Mei"], Role.View, "Rota"),
            StringComparison.Ordinal
        );
        Assert.Throws<ArgumentOutOfRangeException>(() => RoleSentence.For([], Role.View, "Rota"));
        Assert.Throws<ArgumentOutOfRangeException>(() => RoleSentence.For(["Priya"], Role.None, "Rota"));
    }

    private static readonly Instant Friday = Instant.FromUtc(2026, 3, 14, 0, 0);
    private static readonly Instant Sunday = Instant.FromUtc(2026, 3, 16, 0, 0);

    public static TheoryData<string, Grant, Role, Instant?, Role, Instant?> Raised() =>
        new()
        {
            { "a higher step comes with its own end", Of(Role.View, null), Role.Edit, Friday, Role.Edit, Friday },
            { "a lower one changes nothing", Of(Role.Edit, Friday), Role.View, null, Role.Edit, Friday },
            { "of two like ones the later end counts", Of(Role.View, Friday), Role.View, Sunday, Role.View, Sunday },
            { "also the later that was there", Of(Role.View, Sunday), Role.View, Friday, Role.View, Sunday },
            { "no end is later than any", Of(Role.View, Friday), Role.View, null, Role.View, null },
            { "and stays", Of(Role.View, null), Role.View, Friday, Role.View, null },
            { "what is over gives nothing", Of(Role.Edit, Now), Role.Times, Friday, Role.Times, Friday },
            { "nor does what was taken", Of(Role.None, null), Role.Times, null, Role.Times, null },
        };

    [Theory]
    [MemberData(nameof(Raised))]
    public void A_step_given_beside_another(
        string why,
        Grant has,
        Role given,
        Instant? endsAt,
        Role role,
        Instant? until
    )
    {
        var raised = has.Raised(given, endsAt, Now);

        Assert.True((role, until) == (raised.Role, raised.EndsAt), $"{why}: {raised}");
        Assert.Equal(has.Way, raised.Way);
    }

    private static Grant Of(Role role, Instant? endsAt) => new(role, Way.Own, endsAt);
}
