using System.Reflection;
using System.Text.RegularExpressions;
using Mono.Cecil;
using Mortar.Core.Access;
using Mortar.Data.Store;
using Mortar.Formats.ICalendar;
using Mortar.Server.Hosting;
using NetArchTest.Rules;
using Xunit;

namespace Mortar.Server.Tests;

/// <summary>Arrows point one way.</summary>
public class ArchitectureTests
{
    private static readonly Assembly Core = typeof(Role).Assembly;
    private static readonly Assembly Formats = typeof(CalendarFile).Assembly;
    private static readonly Assembly Data = typeof(MortarDb).Assembly;
    private static readonly Assembly Server = typeof(MortarHost).Assembly;

    public static TheoryData<string, string[]> Forbidden() =>
        new()
        {
            {
                "Mortar.Core",
                [
                    "Mortar.Data",
                    "Mortar.Formats",
                    "Mortar.Server",
                    "Microsoft.EntityFrameworkCore",
                    "Microsoft.AspNetCore",
                    "Microsoft.Extensions",
                    "System.IO",
                    "System.Net",
                    "System.Text.Json",
                ]
            },
            {
                "Mortar.Formats",
                ["Mortar.Data", "Mortar.Server", "Microsoft.EntityFrameworkCore", "Microsoft.AspNetCore"]
            },
            { "Mortar.Data", ["Mortar.Formats", "Mortar.Server"] },
        };

    [Theory]
    [MemberData(nameof(Forbidden))]
    public void A_project_knows_only_what_lies_under_it(string project, string[] others)
    {
        var types = Types.InAssemblies(
            new[] { Core, Formats, Data }.Where(assembly => assembly.GetName().Name == project)
        );

        AssertHolds(types.ShouldNot().HaveDependencyOnAny(others));
    }

    /// <summary>The rooms of Core, each knowing only rooms before it.</summary>
    private static readonly string[] Rooms =
    [
        "Words",
        "WebCalendars",
        "Time",
        "Accounts",
        "Recurrence",
        "Events",
        "Changes",
        "Access",
        "Calendars",
        "Links",
        "Undo",
        "Binned",
        "Answers",
        "Groups",
        "Preferences",
        "Availability",
        "Absences",
        "Roster",
        "Spreadsheets",
        "Paper",
        "Writing",
        "Proposals",
        "Reminders",
        "Noticeboards",
        "Feeds",
        "Devices",
        "Letters",
    ];

    public static TheoryData<string> Each() => [.. Rooms];

    [Theory]
    [MemberData(nameof(Each))]
    public void A_room_of_core_knows_only_those_before_it(string room)
    {
        // Access shows calendars, and calendars name steps of the ladder: these two are read together.
        var later = Rooms
            .SkipWhile(one => one != room)
            .Skip(1)
            .Where(one => (room, one) is not ("Access", "Calendars"));

        AssertHolds(
            Types
                .InAssembly(Core)
                .That()
                .ResideInNamespace($"Mortar.Core.{room}")
                .ShouldNot()
                .HaveDependencyOnAny([.. later.Select(one => $"Mortar.Core.{one}")])
        );
    }

    [Fact]
    public void Every_type_of_core_lives_in_a_room_that_is_named_here() =>
        Assert.Empty(Core.GetExportedTypes().Select(type => type.Namespace!.Split('.')[2]).Except(Rooms));

    /// <summary>
    /// The rooms of Data, each asking only rooms before it. What is stored, and the store that holds all of it, is common
    /// ground: a row is known wherever it is read.
    /// </summary>
    private static readonly string[] DataRooms =
    [
        "Changes",
        "Preferences",
        "People",
        "Mail",
        "Accounts",
        "Access",
        "Links",
        "Calendars",
        "Events",
        "Groups",
        "Answers",
        "Proposals",
        "Shelf",
        "WebCalendars",
        "Noticeboards",
        "Feeds",
        "Devices",
        "Reading",
        "Availability",
        "Absences",
        "Roster",
        "Kinds",
        "Undo",
        "History",
        "Inbox",
        "Reminders",
        "Keeping",
        "Binned",
    ];

    [Fact]
    public void A_room_of_data_asks_only_those_before_it()
    {
        using var assembly = AssemblyDefinition.ReadAssembly(Data.Location);
        var stored = typeof(MortarDb)
            .GetProperties()
            .Where(property => property.PropertyType.IsGenericType)
            .Select(property => property.PropertyType.GetGenericArguments()[0].FullName!)
            .ToHashSet(StringComparer.Ordinal);

        var backwards =
            from type in assembly.MainModule.GetTypes()
            let room = RoomOf(type)
            where DataRooms.Contains(room)
            from name in Known(type).Distinct(StringComparer.Ordinal)
            where !stored.Contains(name)
            let asked = RoomOf(name)
            where asked != room && Array.IndexOf(DataRooms, asked) > Array.IndexOf(DataRooms, room)
            select $"{room} asks {asked}: {type.FullName} knows {name}";

        Assert.Empty(backwards.Distinct(StringComparer.Ordinal).Order(StringComparer.Ordinal));
        Assert.Empty(
            Data.GetTypes()
                .Select(type => type.Namespace?.Split('.').ElementAtOrDefault(2))
                .OfType<string>()
                .Except([.. DataRooms, "Store", "Migrations"])
        );
    }

    private static string RoomOf(TypeReference type)
    {
        while (type.DeclaringType is { } outer)
        {
            type = outer;
        }

        return RoomOf(type.FullName);
    }

    private static string RoomOf(string name) => name.Split('.') is ["Mortar", "Data", var room, ..] ? room : "";

    /// <summary>The types of Data that a type names in what it holds, gives, takes and does.</summary>
    private static IEnumerable<string> Known(TypeDefinition type)
    {
        var held = type.Fields.Select(field => field.FieldType).Append(type.BaseType);
        var signed = type.Methods.SelectMany(method =>
            method.Parameters.Select(one => one.ParameterType).Append(method.ReturnType)
        );
        var done =
            from method in type.Methods
            where method.HasBody
            from step in method.Body.Instructions
            from one in step.Operand switch
            {
                MethodReference called => new[] { called.DeclaringType, called.ReturnType },
                FieldReference read => [read.DeclaringType],
                TypeReference named => [named],
                _ => Array.Empty<TypeReference>(),
            }
            select one;
        return held.Concat(signed).Concat(done).OfType<TypeReference>().SelectMany(Parts).Select(Outermost);
    }

    private static IEnumerable<TypeReference> Parts(TypeReference type) =>
        type is GenericInstanceType generic
            ? generic.GenericArguments.SelectMany(Parts).Append(generic.ElementType)
            : [type.GetElementType()];

    private static string Outermost(TypeReference type)
    {
        while (type.DeclaringType is { } outer)
        {
            type = outer;
        }

        return type.FullName;
    }

    [Fact]
    public void Clock_times_of_the_framework_stop_at_the_edge()
    {
        var uses =
            from type in Core.GetExportedTypes()
            from property in type.GetProperties()
            where
                property.PropertyType == typeof(DateTime)
                || property.PropertyType == typeof(DateTimeOffset)
                || property.PropertyType == typeof(TimeSpan)
            select $"{type.Name}.{property.Name}";

        Assert.Empty(uses);
    }

    [Fact]
    public void A_room_of_the_server_does_not_reach_into_another_one_but_for_what_is_named()
    {
        // The wire form of a layer and the making of accounts serve two rooms each; the demo furnishes all of them.
        string[] shared = ["Shelf", "Accounts"];
        var rooms = Server
            .GetTypes()
            .Select(type => type.Namespace)
            .OfType<string>()
            .Where(name => name.StartsWith("Mortar.Server.Features.", StringComparison.Ordinal))
            .Distinct()
            .ToList();

        foreach (var room in rooms)
        {
            var others = rooms.Where(other => other != room && !shared.Contains(other.Split('.')[^1])).ToArray();

            AssertHolds(
                Types.InAssembly(Server).That().ResideInNamespace(room).ShouldNot().HaveDependencyOnAny(others)
            );
        }
    }

    public static TheoryData<string> Capabilities() =>
        [
            "Absences",
            "Access",
            "Answers",
            "Binned",
            "Calendars",
            "Devices",
            "Events",
            "Feeds",
            "Groups",
            "Links",
            "Noticeboards",
            "Preferences",
            "Proposals",
            "Reminders",
            "Undo",
            "WebCalendars",
        ];

    /// <summary>Whoever knows one room of a capability finds the others by its name.</summary>
    [Theory]
    [MemberData(nameof(Capabilities))]
    public void A_capability_has_a_room_of_its_name_in_each(string name)
    {
        string[] rooms =
        [
            $"src/Mortar.Core/{name}",
            $"src/Mortar.Data/{name}",
            $"src/Mortar.Server/Features/{name}",
            name == "Undo" ? "web/src/undo" : $"web/src/features/{name.ToLowerInvariant()}",
        ];
        string[] tests = [$"tests/Mortar.Core.Tests/{name}", $"tests/Mortar.Server.Tests/Features/{name}"];

        Assert.All(rooms, room => Assert.True(IsThere(room), $"There is no {room}."));
        Assert.True(tests.Any(IsThere), $"There are no tests of {name}.");

        static bool IsThere(string room) => Directory.Exists(Path.Combine(Repository.Root, room));
    }

    /// <summary>What comes in names an address as text. Whatever goes out holds what a rule let through (<see cref="ToldAddress"/>).</summary>
    [Fact]
    public void An_address_goes_out_only_where_a_rule_says_so()
    {
        var asText =
            from type in Server.GetTypes()
            where
                type is { IsNested: true, Namespace: { } room }
                && room.StartsWith("Mortar.Server.Features", StringComparison.Ordinal)
            from property in type.GetProperties(BindingFlags.Instance | BindingFlags.Public)
            where property.Name == "Address" && property.PropertyType == typeof(string)
            select $"{type.DeclaringType!.Name}.{type.Name}";

        Assert.Equal(
            [
                "AccountAtLink.Body",
                "Addresses.AskBody",
                "ChangeMembers.CorrectBody",
                "ChangeMembers.NewBody",
                "FirstAccount.Body",
                "Invite.Body",
                "InviteMany.OneBody",
                "Passwords.ForgottenBody",
                "Session.SignInBody",
                "WebCalendarsSetup.AddressBody", // these of the web
                "WebCalendarsSetup.MakeBody",
            ],
            asText.Order(StringComparer.Ordinal)
        );
    }

    private static void AssertHolds(ConditionList rule)
    {
        var result = rule.GetResult();
        Assert.True(result.IsSuccessful, string.Join(", ", result.FailingTypeNames ?? []));
    }

    /// <summary>A story of names that are not there any more leads strangers astray.</summary>
    [Fact]
    public void The_names_in_the_story_of_one_event_are_there()
    {
        var text = File.ReadAllText(Path.Combine(Repository.Root, "CONTRIBUTING.md"));
        var story = text[text.IndexOf("## One event's way", StringComparison.Ordinal)..];
        var files = Directory
            .EnumerateFiles(Path.Combine(Repository.Root, "src"), "*.cs", SearchOption.AllDirectories)
            .Concat(
                Directory.EnumerateFiles(Path.Combine(Repository.Root, "web/src"), "*.ts*", SearchOption.AllDirectories)
            )
            .Where(file => !file.Contains("/obj/", StringComparison.Ordinal))
            .ToList();
        var code = string.Join('\n', files.Select(File.ReadAllText));

        var gone =
            from Match match in Regex.Matches(
                story,
                "`(?<name>[^`]+)`",
                RegexOptions.ExplicitCapture,
                TimeSpan.FromSeconds(1)
            )
            let name = match.Groups["name"].Value
            where
                !name.Split('/', '.').All(part => code.Contains(part, StringComparison.Ordinal))
                && !files.Exists(file => file.EndsWith($"/{name}", StringComparison.Ordinal))
                && !Directory.Exists(Path.Combine(Repository.Root, "src", $"Mortar.{name}"))
            select name;

        Assert.Empty(gone);
    }
}
