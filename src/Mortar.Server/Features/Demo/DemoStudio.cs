using Microsoft.AspNetCore.Identity;
using Microsoft.EntityFrameworkCore;
using Mortar.Core.Access;
using Mortar.Core.Calendars;
using Mortar.Core.Events;
using Mortar.Core.Groups;
using Mortar.Core.Noticeboards;
using Mortar.Core.Preferences;
using Mortar.Core.Recurrence;
using Mortar.Core.Time;
using Mortar.Core.Words;
using Mortar.Data.Accounts;
using Mortar.Data.Groups;
using Mortar.Data.Noticeboards;
using Mortar.Data.Store;
using NodaTime;
using static Mortar.Server.Features.Demo.DemoPeople;

namespace Mortar.Server.Features.Demo;

/// <summary>Kiln Street Studio: made-up people, groups, calendars and weeks around today, made once in an empty store.</summary>
internal sealed partial class DemoStudio(MortarDb db, UserManager<Account> accounts, ZoneClock zones, IClock clock)
{
    private static readonly string[] OnPaper =
    [
        "Bea Moss",
        "Caspar Reed",
        "Elif Aydin",
        "Farid Noor",
        "Greta Holm",
        "Jonas Pell",
        "Kaja Berg",
        "Leo Santos",
        "Maud Vane",
        "Otis Clay",
        "Rhea Lund",
        "Sol Ortega",
    ];

    /// <summary>Those who let people of their groups see when they are busy.</summary>
    private static readonly DemoPerson[] ShowsBusy = [Ines, Tomasz, Dele];

    private readonly List<(GroupId Group, DemoPerson Person)> joining = [];

    /// <summary>Makes everything, where there is no account yet.</summary>
    /// <param name="begin">Takes note, before anything is made, that it is not finished.</param>
    /// <param name="fetch">Fetches what comes from the web.</param>
    /// <param name="cancellationToken">Stops it.</param>
    public async Task Furnish(Action begin, Func<Task> fetch, CancellationToken cancellationToken)
    {
        if (await db.Users.AnyAsync(cancellationToken))
        {
            return;
        }

        begin();
        await Write(Ines, MakePeople, cancellationToken);
        await Write(Ines, MakeStudioTeam, cancellationToken);
        await Write(Priya, MakePriyasTime, cancellationToken);
        await Write(Hanne, MakeHannesTime, cancellationToken);
        await Write(Mei, MakeWebShop, cancellationToken);
        await Write(Tomasz, MakeThursdayThrowing, cancellationToken);
        await Write(Dele, MakeRakuClub, cancellationToken);
        await Write(Astrid, MakeFamily, cancellationToken);
        foreach (var (group, person) in joining)
        {
            await Write(person, () => Join(group, person), cancellationToken);
        }

        await fetch();
        await SeeInboxes(cancellationToken);
    }

    /// <summary>Everybody is in a group by their own yes.</summary>
    private Task Join(GroupId group, DemoPerson person)
    {
        db.Members.Add(new MemberRow { GroupId = group, PersonId = person.Id });
        return Task.CompletedTask;
    }

    /// <summary>Being given these calendars is old news.</summary>
    private async Task SeeInboxes(CancellationToken cancellationToken)
    {
        var latest = await db.Changes.MaxAsync(change => change.Sequence, cancellationToken);
        foreach (var person in await db.People.ToListAsync(cancellationToken))
        {
            person.SeenChanges = latest;
        }

        await db.SaveChangesAsync(cancellationToken);
    }

    private LocalDate Monday
    {
        get
        {
            var today = clock.GetCurrentInstant().InZone(zones.Zone(Home)).Date;
            return today.PlusDays(1 - (int)today.DayOfWeek);
        }
    }

    private async Task Write(DemoPerson by, Func<Task> make, CancellationToken cancellationToken) =>
        _ = await db.Write<bool>(
            Act.By(by.Id),
            async () =>
            {
                await make();
                return true;
            },
            cancellationToken
        );

    private async Task MakePeople()
    {
        // Made once, since it is made slow on purpose: everybody is told the one password of all of them.
        var hash = accounts.PasswordHasher.HashPassword(new Account(), Password);
        foreach (var person in All)
        {
            var row = new PersonRow
            {
                Id = person.Id,
                Name = person.Name,
                Address = person.Address,
                Zone = person.Zone,
            };
            row.Apply(PersonPreferences.In(person.Zone) with { ShowsBusy = ShowsBusy.Contains(person) });
            db.People.Add(row);
            var made = await accounts.CreateAsync(
                new Account
                {
                    Id = person.Id.Value,
                    UserName = person.Address,
                    Email = person.Address,
                    PasswordHash = hash,
                }
            );
            if (!made.Succeeded)
            {
                throw new InvalidOperationException(made.ToString());
            }
        }
    }

    private async Task MakeStudioTeam()
    {
        var team = Group(
            "Studio team",
            GroupSort.Staff,
            Ines,
            [Tomasz, Priya, Dele, Mei, Hanne],
            [
                new CoverNeed([5, 5, 6, 5, 5, 0, 0]),
                CoverNeed.OnWorkingDays(1) with
                {
                    Name = "Kiln watch",
                    Part = new DayPart(new LocalTime(9, 0), new LocalTime(13, 0)),
                    People = [Dele.Id, Tomasz.Id],
                },
            ]
        );

        var rota = Calendar(
            team,
            "Rota",
            "Who minds the front desk and the studio floor.",
            Hue.Iron,
            Mark.Cone,
            Purpose.Events,
            Role.View,
            [(Ines, Role.Coordinate), (Tomasz, Role.Edit), (Priya, Role.Edit)]
        );
        Weekly(rota, Ines, "Front desk", 0, 9, 0, 4, "MO,TU", "Front desk", who: Ines);
        Weekly(rota, Ines, "Front desk", 2, 13, 0, 4, "WE", "Front desk", who: Priya);
        Weekly(rota, Ines, "Front desk", 4, 9, 0, 3, "FR", "Front desk", who: Tomasz);
        Weekly(rota, Ines, "Open studio", 5, 10, 0, 6, "SA", "Studio floor", who: Tomasz);
        Once(
            rota,
            Ines,
            "Team meeting",
            2,
            9,
            0,
            1,
            "Long table",
            "Glaze order, autumn fairs, the wobbly shelf.",
            who: [Ines, Tomasz, Priya, Mei]
        );
        Once(rota, Ines, "Front desk", 3, 13, 0, 3.5, "Front desk", who: Ines);
        Once(rota, Ines, "Kiln watch", 3, 17, 0, 3, "Kiln yard", who: Dele);

        var classes = Calendar(
            team,
            "Classes",
            "Everything we teach.",
            Hue.Violet,
            Mark.Tile,
            Purpose.Events,
            Role.View,
            [(Ines, Role.Coordinate), (Tomasz, Role.Edit)],
            kinds: [new Kind("Session", Tint.Even), new Kind("Visit", Tint.Deep), new Kind("Trial", Tint.Pale)]
        );
        Weekly(
            classes,
            Tomasz,
            "Wheel basics",
            1,
            14,
            0,
            2,
            "TU,WE",
            "Wheel room",
            "Eight wheels, Tomasz teaches.",
            "Session",
            Tomasz
        );
        Weekly(classes, Tomasz, "Hand building", 1, 17, 30, 1.5, "TU", "Long table", kind: "Session", who: Ines);
        Once(
            classes,
            Ines,
            "School visit",
            2,
            10,
            0,
            2,
            "Studio floor",
            "Twenty-two pupils, bring aprons.",
            kind: "Visit",
            who: Ines
        );
        Once(classes, Tomasz, "Glaze chemistry", 0, 10, 0, 1.5, "Glaze room", kind: "Session", who: Priya);
        Once(classes, Tomasz, "Glaze testing", 3, 14, 0, 1.5, "Glaze room", kind: "Trial", who: Priya);
        Once(
            classes,
            Ines,
            "Family clay",
            5,
            11,
            0,
            1.5,
            "Long table",
            showAs: ShowAs.Tentative,
            kind: "Trial",
            who: Priya
        );

        var kiln = Calendar(
            team,
            "Big kiln",
            "Firings and coolings. Book before you load.",
            Hue.Moss,
            Mark.Dome,
            Purpose.Place,
            Role.Add,
            [(Ines, Role.Coordinate), (Priya, Role.Edit)]
        );
        Once(kiln, Priya, "Unload bisque", 0, 8, 0, 1.5, "Kiln yard", who: Tomasz);
        Once(kiln, Priya, "Bisque firing", 2, 8, 0, 7, "Kiln yard", "To 1000 °C, slow to 600.");
        Once(kiln, Priya, "Unload", 3, 13, 30, 1, "Kiln yard", who: Priya);
        Once(kiln, Priya, "Glaze firing 1240", 4, 8, 0, 12, "Kiln yard", "Hold 20 minutes at the top.");

        var away = Calendar(
            team,
            "Away",
            "Holidays and other absences.",
            Hue.Ochre,
            Mark.Shelf,
            Purpose.Away,
            Role.Add,
            [(Ines, Role.Coordinate)]
        );
        Days(away, Dele, "Away", 0, 2, "Back on Thursday.", Dele);
        Days(away, Mei, "Away", 11, 15, who: Mei);
        Days(away, Tomasz, "At a workshop", 8, 8, who: Tomasz);

        var holidays = await FromWeb(team, "Holidays", "holidays.ics", Hue.Rose, Mark.Post, Ines);
        var row = db.Groups.Local.Single(one => one.Id == team);
        row.Apply(row.ToSettings() with { DaysOff = holidays });
    }

    private Task MakePriyasTime()
    {
        var team = new GroupId(Stable("Studio team"));
        var priya = Calendar(
            team,
            "Priya’s time",
            "My own.",
            Hue.Lake,
            Mark.Disc,
            Purpose.Events,
            Role.Times,
            [(Priya, Role.Coordinate)],
            takes: WhoseTime.Person,
            person: Priya
        );
        Once(priya, Priya, "Dentist", 0, 13, 30, 1.5, "Mill Lane");
        Once(priya, Priya, "Choir", 1, 18, 30, 1.5, "Chapel");
        Once(priya, Priya, "School meeting", 4, 13, 0, 1.5);
        return Task.CompletedTask;
    }

    private Task MakeHannesTime()
    {
        var team = new GroupId(Stable("Studio team"));
        var hanne = Calendar(
            team,
            "Hanne’s time",
            string.Empty,
            Hue.Cobalt,
            Mark.Block,
            Purpose.Events,
            Role.Times,
            [(Hanne, Role.Coordinate)],
            takes: WhoseTime.Person,
            person: Hanne
        );
        Once(hanne, Hanne, "Hanging the spring show", 3, 9, 0, 2);
        Once(hanne, Hanne, "Buyers", 0, 15, 0, 1);
        return Task.CompletedTask;
    }

    private Task MakeWebShop()
    {
        var team = new GroupId(Stable("Studio team"));
        var shop = Calendar(
            team,
            "Web shop",
            "Photographs, parcels, new things.",
            Hue.Plum,
            Mark.Ring,
            Purpose.Events,
            Role.Outline,
            [(Mei, Role.Coordinate), (Ines, Role.View)],
            Mei.Zone,
            WhoseTime.Person,
            Mei
        );
        Weekly(shop, Mei, "Shop hours", 1, 11, 0, 2, "TU,TH");
        return Task.CompletedTask;
    }

    private Task MakeThursdayThrowing()
    {
        var group = Group("Thursday throwing", GroupSort.Class, Tomasz, [Ines, Astrid]);
        foreach (var name in OnPaper)
        {
            var pupil = new PersonRow
            {
                Id = new PersonId(Stable(name)),
                Name = name,
                Zone = Home,
            };
            db.People.Add(pupil);
            db.Members.Add(new MemberRow { GroupId = group, PersonId = pupil.Id });
        }

        var calendar = Calendar(
            group,
            "Thursday throwing",
            "Ten evenings at the wheel, and one to glaze.",
            Hue.Teal,
            Mark.Wave,
            Purpose.Events,
            Role.View,
            [(Tomasz, Role.Coordinate)]
        );
        var first = Monday.PlusDays(3 - 21);
        var halfTerm = first.PlusDays(35) + new LocalTime(19, 0);
        var time = EventTime.InZone(first + new LocalTime(19, 0), first + new LocalTime(21, 30), Home);
        Put(
            calendar,
            Tomasz,
            time,
            Said("Thursday throwing", "Wheel room", "Bring a towel.", string.Empty, [Tomasz]),
            Series.By(RecurrenceRule.Weekly(1, new SeriesEnd.After(11))).Without(halfTerm)
        );
        return Task.CompletedTask;
    }

    private async Task MakeRakuClub()
    {
        var group = Group("Raku club", GroupSort.Club, Dele, [Ines, Priya, Astrid]);
        var calendar = Calendar(
            group,
            "Raku club",
            "Meets and fairs.",
            Hue.Ember,
            Mark.Spark,
            Purpose.Events,
            Role.View,
            [(Dele, Role.Coordinate), (Ines, Role.Edit)],
            kinds: [new Kind("Fair", Tint.Even), new Kind("Meet", Tint.Flecked)]
        );
        ToBeSet(calendar, Dele, "Marsh fair", 5, 6, "Fair");
        ToBeSet(calendar, Dele, "Harbour fair", 26, 27, "Fair");
        Once(calendar, Dele, "Pit firing", 13, 15, 0, 4, "Lower field", "Dry wood and long gloves.");

        var row = new NoticeboardRow
        {
            Id = new NoticeboardId(Stable("noticeboard Raku club")),
            GroupId = group,
            Keeper = Dele.Id,
            Address = "raku-club",
            State = BoardState.Open,
        };
        row.Apply(
            new Noticeboard(
                "Raku club",
                "Fairs, firings and meets, open to visitors.\nAsk for Dele at the door of Kiln Street Studio.",
                Home,
                [new BoardLayer(calendar, Role.View)]
            )
            {
                Accent = Hue.Ember,
                Listed = true,
            }
        );
        db.Noticeboards.Add(row);

        // Nobody else reaches this one; when it takes him is all that people of his groups are told.
        var own = Calendar(
            group,
            "Dele’s other work",
            "Not for the club.",
            Hue.Copper,
            Mark.Post,
            Purpose.Events,
            Role.None,
            [(Dele, Role.Coordinate)],
            takes: WhoseTime.Person,
            person: Dele
        );
        Weekly(own, Dele, "Timber yard", 3, 8, 0, 4, "TH,FR");

        await FromWeb(group, "Craft fairs", "fairs.ics", Hue.Copper, Mark.Tile, Dele);
    }

    private async Task MakeFamily()
    {
        var group = Group("Lindqvist-Osei family", GroupSort.Family, Astrid, []);
        var home = Calendar(
            group,
            "Home",
            "Meals, visitors, repairs.",
            Hue.Rose,
            Mark.Drop,
            Purpose.Events,
            Role.Edit,
            [(Astrid, Role.Coordinate)]
        );
        Once(home, Astrid, "Boiler service", 1, 9, 0, 2, "Home");
        Once(home, Astrid, "Grandparents to dinner", 6, 17, 0, 3, "Home");
        var children = Calendar(
            group,
            "Children",
            "School and clubs.",
            Hue.Olive,
            Mark.Cross,
            Purpose.Events,
            Role.Edit,
            [(Astrid, Role.Coordinate)]
        );
        Weekly(children, Astrid, "Swimming", 0, 16, 0, 1, "MO,WE", "Baths");

        await FromWeb(group, "Harbour league", "league.ics", Hue.Cobalt, Mark.Ring, Astrid);
    }
}
