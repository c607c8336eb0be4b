using System.Globalization;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Storage.ValueConversion;
using Mortar.Core.Access;
using Mortar.Core.Calendars;
using Mortar.Core.Changes;
using Mortar.Core.Events;
using Mortar.Core.Groups;
using Mortar.Core.Noticeboards;
using Mortar.Core.Words;
using NodaTime;

namespace Mortar.Data.Store;

/// <summary>How ids, times and choices are stored, for every row alike.</summary>
internal static class Conversions
{
    public static void Apply(ModelConfigurationBuilder builder)
    {
        builder.Properties<PersonId>().HaveConversion<PersonIds>();
        builder.Properties<GroupId>().HaveConversion<GroupIds>();
        builder.Properties<CalendarId>().HaveConversion<CalendarIds>();
        builder.Properties<EventId>().HaveConversion<EventIds>();
        builder.Properties<InvitationId>().HaveConversion<InvitationIds>();
        builder.Properties<AskId>().HaveConversion<AskIds>();
        builder.Properties<ProposalId>().HaveConversion<ProposalIds>();
        builder.Properties<LinkId>().HaveConversion<LinkIds>();
        builder.Properties<NoticeboardId>().HaveConversion<NoticeboardIds>();
        builder.Properties<ChangeSetId>().HaveConversion<ChangeSetIds>();
        builder.Properties<Instant>().HaveConversion<Instants>();
        builder.DefaultTypeMapping<Instant>().HasConversion<Instants>(); // where a query says one that is no column
        builder.Properties<LocalDateTime>().HaveConversion<LocalDateTimes>();
        builder.Properties<Role>().HaveConversion<string>();
        builder.Properties<Hue>().HaveConversion<string>();
        builder.Properties<Mark>().HaveConversion<string>();
        builder.Properties<Purpose>().HaveConversion<string>();
        builder.Properties<WhoseTime>().HaveConversion<string>();
        builder.Properties<ShowAs>().HaveConversion<string>();
        builder.Properties<Subject>().HaveConversion<string>();
        builder.Properties<GroupSort>().HaveConversion<string>();
        builder.Properties<IsoDayOfWeek>().HaveConversion<string>();
        builder.Properties<InvitationState>().HaveConversion<string>();
        builder.Properties<AskState>().HaveConversion<string>();
        builder.Properties<BoardState>().HaveConversion<string>();
    }

    private sealed class PersonIds() : ValueConverter<PersonId, Guid>(id => id.Value, value => new PersonId(value));

    private sealed class GroupIds() : ValueConverter<GroupId, Guid>(id => id.Value, value => new GroupId(value));

    private sealed class CalendarIds()
        : ValueConverter<CalendarId, Guid>(id => id.Value, value => new CalendarId(value));

    private sealed class EventIds() : ValueConverter<EventId, Guid>(id => id.Value, value => new EventId(value));

    private sealed class InvitationIds()
        : ValueConverter<InvitationId, Guid>(id => id.Value, value => new InvitationId(value));

    private sealed class AskIds() : ValueConverter<AskId, Guid>(id => id.Value, value => new AskId(value));

    private sealed class ProposalIds()
        : ValueConverter<ProposalId, Guid>(id => id.Value, value => new ProposalId(value));

    private sealed class LinkIds() : ValueConverter<LinkId, Guid>(id => id.Value, value => new LinkId(value));

    private sealed class NoticeboardIds()
        : ValueConverter<NoticeboardId, Guid>(id => id.Value, value => new NoticeboardId(value));

    private sealed class ChangeSetIds()
        : ValueConverter<ChangeSetId, Guid>(id => id.Value, value => new ChangeSetId(value));

    /// <summary>Milliseconds since 1970: SQLite can compare and order them.</summary>
    private sealed class Instants()
        : ValueConverter<Instant, long>(
            instant => instant.ToUnixTimeMilliseconds(),
            value => Instant.FromUnixTimeMilliseconds(value)
        );

    private sealed class LocalDateTimes()
        : ValueConverter<LocalDateTime, string>(time => Text(time), value => Time(value))
    {
        private static string Text(LocalDateTime time) =>
            time.ToString("uuuu-MM-dd'T'HH:mm:ss", CultureInfo.InvariantCulture);

        private static LocalDateTime Time(string value) =>
            NodaTime.Text.LocalDateTimePattern.GeneralIso.Parse(value).GetValueOrThrow();
    }
}
