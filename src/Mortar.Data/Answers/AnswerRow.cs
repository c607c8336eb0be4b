using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;
using Mortar.Core.Answers;
using Mortar.Core.Changes;
using Mortar.Core.Preferences;
using Mortar.Core.Time;
using Mortar.Core.Words;
using Mortar.Data.Access;
using Mortar.Data.Events;
using Mortar.Data.Groups;
using Mortar.Data.Mail;
using Mortar.Data.Store;
using NodaTime;

namespace Mortar.Data.Answers;

/// <summary>What somebody answered to an event, or to one date of a series.</summary>
public sealed class AnswerRow : IRecorded
{
    public Guid Id { get; init; } = Guid.CreateVersion7();

    public required EventId EventId { get; init; }

    public required CalendarId CalendarId { get; init; }

    public required PersonId PersonId { get; set; }

    /// <summary>The start by which the series counts the date; the empty text for a single event or the whole.</summary>
    public required string Only { get; init; }

    public required Answer Answer { get; set; }

    public required string About { get; set; }

    public string Comment { get; set; } = string.Empty;

    /// <summary>Another time they suggest, as instants; <c>null</c> for none.</summary>
    public Instant? SuggestedStart { get; set; }

    public Instant? SuggestedEnd { get; set; }

    public Instant AnsweredAt { get; set; }

    /// <summary>Of an answer that came by mail, the revision of the event it is about.</summary>
    public int ReplySequence { get; set; }

    /// <summary>When what counts was written: by the mail that brought it, else when it was said here.</summary>
    public Instant? ReplyStamp { get; set; }

    /// <summary>Whose event it is to organize: told of it in their inbox.</summary>
    public required PersonId Organizer { get; set; }

    public int Version { get; set; }

    Subject IRecorded.Subject => Subject.Answer;

    Guid IRecorded.SubjectId => Id;

    CalendarId? IRecorded.OfCalendar => CalendarId;

    PersonId? IRecorded.Concerns => Organizer;

    void IRecorded.Vanish(Instant now) => Answer = Answer.NeedsAction;

    public GivenAnswer ToCore() => new(PersonId, Answer, OnlyOf(Only), About);

    internal static string OnlyText(LocalDateTime? only) =>
        only is { } start ? NodaTime.Text.LocalDateTimePattern.GeneralIso.Format(start) : string.Empty;

    internal static LocalDateTime? OnlyOf(string text) =>
        text.Length == 0 ? null : NodaTime.Text.LocalDateTimePattern.GeneralIso.Parse(text).Value;
}

/// <summary>That somebody was asked by mail whether they come, with the hash of the secret by which they answer.</summary>
public sealed class AskedRow
{
    public required EventId EventId { get; init; }

    public required PersonId PersonId { get; init; }

    public required string Hash { get; set; }

    public required Instant SentAt { get; set; }

    /// <summary>The version of the event they were last told of.</summary>
    public int ToldVersion { get; set; }

    /// <summary>Whether they were last told that it is off, or off for them.</summary>
    public bool IsToldOff { get; set; }

    /// <summary>How often they were told that its calendar went to the bin or came back: the event is the same, and its SEQUENCE is not.</summary>
    public int BinTold { get; set; }
}

internal sealed class AnswerConfiguration : IEntityTypeConfiguration<AnswerRow>
{
    public void Configure(EntityTypeBuilder<AnswerRow> builder)
    {
        builder.ToTable("Answers");
        builder.Property(row => row.Answer).HasConversion<string>();
        builder
            .HasIndex(row => new
            {
                row.EventId,
                row.PersonId,
                row.Only,
            })
            .IsUnique()
            .HasDatabaseName("UX_Answers_OncePerDate");
        builder.HasIndex(row => row.CalendarId);
        builder.HasOne<EventRow>().WithMany().HasForeignKey(row => row.EventId);
        builder.HasOne<PersonRow>().WithMany().HasForeignKey(row => row.PersonId);
    }
}

internal sealed class AskedConfiguration : IEntityTypeConfiguration<AskedRow>
{
    public void Configure(EntityTypeBuilder<AskedRow> builder)
    {
        builder.ToTable("Asked");
        builder.HasKey(row => new { row.EventId, row.PersonId });
        builder.HasIndex(row => row.Hash).IsUnique();
        builder.HasOne<EventRow>().WithMany().HasForeignKey(row => row.EventId);
        builder.HasOne<PersonRow>().WithMany().HasForeignKey(row => row.PersonId);
    }
}

/// <summary>Reads answers.</summary>
public static class AnswerQueries
{
    /// <summary>All answers to events of some calendars that can touch the window.</summary>
    public static async Task<ILookup<EventId, GivenAnswer>> AnswersIn(
        this MortarDb db,
        IReadOnlyCollection<CalendarId> calendars,
        Window window,
        CancellationToken cancellationToken
    )
    {
        var events = db.RowsTouching(calendars, window);
        return (
            await db
                .Answers.AsNoTracking()
                // Looked up answer by answer: there are far fewer than events, and often none.
                .Where(row => calendars.Contains(row.CalendarId) && events.Any(one => one.Id == row.EventId))
                .ToListAsync(cancellationToken)
        ).ToLookup(row => row.EventId, row => row.ToCore());
    }

    /// <summary>Those for whom somebody answers in the group of a calendar: themselves, and its members whose guardian they are there.</summary>
    public static async Task<IReadOnlyList<PersonId>> AnswersFor(
        this MortarDb db,
        PersonId person,
        CalendarId calendar,
        CancellationToken cancellationToken
    )
    {
        var reader = await db.ReaderOf(person, cancellationToken);
        return reader.Wards.Count == 0
            ? [person]
            : reader.AnswersIn(
                await db
                    .Calendars.Where(row => row.Id == calendar)
                    .Select(row => row.GroupId)
                    .SingleAsync(cancellationToken)
            );
    }

    /// <summary>
    /// Where a mail reaches somebody: the address of their account, as they want to be told; else one they are known by in a
    /// group, as a member or a guest. <c>null</c> where none does, or they do not want one.
    /// </summary>
    internal static async Task<MailTo?> MailedAt(
        this MortarDb db,
        PersonId person,
        NoticeTopic topic,
        ZoneClock zones,
        CancellationToken cancellationToken
    )
    {
        var one = await db.People.FirstOrDefaultAsync(row => row.Id == person, cancellationToken);
        if (one is null or { Address: not null })
        {
            return one?.AtOnce(topic, db.Now, zones);
        }

        var known =
            await db
                .Members.Where(member => member.PersonId == person && member.Address != null)
                .OrderBy(member => member.Id)
                .Select(member => member.Address)
                .FirstOrDefaultAsync(cancellationToken)
            ?? await db
                .Guests.Where(guest => guest.PersonId == person)
                .OrderBy(guest => guest.Id)
                .Select(guest => guest.Address)
                .FirstOrDefaultAsync(cancellationToken);
        return known is null ? null : new MailTo(known);
    }

    /// <summary>Whom a mail asks, whatever became of what it asks about; <c>null</c> where another has followed it.</summary>
    public static Task<AskedRow?> AskedBy(this MortarDb db, string secret, CancellationToken cancellationToken)
    {
        var hash = LinkSecret.HashOf(secret);
        return db.Asked.AsNoTracking().FirstOrDefaultAsync(row => row.Hash == hash, cancellationToken);
    }

    /// <summary>
    /// Whom a mailed link asks; <c>null</c> where it leads nowhere any more: it ends with the event, with being asked to it,
    /// and some time after it is over.
    /// </summary>
    public static Task<AskedRow?> QuestionBy(this MortarDb db, string secret, CancellationToken cancellationToken)
    {
        var hash = LinkSecret.HashOf(secret);
        var over = db.Now - AnswerRules.LinkOutlasts;
        return db
            .Asked.AsNoTracking()
            .FirstOrDefaultAsync(
                asked =>
                    asked.Hash == hash
                    && db.Given.Any(given => given.EventId == asked.EventId && given.PersonId == asked.PersonId)
                    && db.Events.Any(row =>
                        row.Id == asked.EventId
                        && row.DeletedAt == null
                        && row.IndexEnd > over
                        && db.Calendars.Any(home => home.Id == row.CalendarId && home.DeletedAt == null)
                    ),
                cancellationToken
            );
    }
}
