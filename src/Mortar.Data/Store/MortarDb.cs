using Microsoft.AspNetCore.Identity.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.ChangeTracking;
using Mortar.Core.Access;
using Mortar.Core.Events;
using Mortar.Core.Letters;
using Mortar.Core.Words;
using Mortar.Data.Absences;
using Mortar.Data.Access;
using Mortar.Data.Accounts;
using Mortar.Data.Answers;
using Mortar.Data.Availability;
using Mortar.Data.Calendars;
using Mortar.Data.Changes;
using Mortar.Data.Devices;
using Mortar.Data.Events;
using Mortar.Data.Feeds;
using Mortar.Data.Groups;
using Mortar.Data.Links;
using Mortar.Data.Mail;
using Mortar.Data.Noticeboards;
using Mortar.Data.Proposals;
using Mortar.Data.Reminders;
using Mortar.Data.WebCalendars;
using NodaTime;

namespace Mortar.Data.Store;

/// <summary>The one SQLite file, and the keeper of the change log.</summary>
/// <remarks>
/// Every added or changed <see cref="IRecorded"/> row gets its row in <c>Changes</c> in the same save, with its state
/// before and after; without an <see cref="Act"/> such a save is refused. Recorded rows are never deleted.
/// </remarks>
public sealed class MortarDb(DbContextOptions<MortarDb> options, IClock clock, ChangeSignal signal, WriteTurn turn)
    : IdentityUserContext<Account, Guid>(options)
{
    private Act? current;

    private readonly EndedGroups ended = new();

    private bool isAboutPeople;

    /// <summary>Who was read by this store as they stand; nobody any more once a write begins or changes who may what.</summary>
    internal Dictionary<PersonId, Reader> Readers { get; } = [];

    /// <summary>What o'clock it is: access that is given for a time ends by it.</summary>
    public Instant Now => clock.GetCurrentInstant();

    public DbSet<PersonRow> People => Set<PersonRow>();

    public DbSet<GroupRow> Groups => Set<GroupRow>();

    public DbSet<MemberRow> Members => Set<MemberRow>();

    public DbSet<GuardianRow> Guardians => Set<GuardianRow>();

    public DbSet<GuestRow> Guests => Set<GuestRow>();

    public DbSet<CalendarRow> Calendars => Set<CalendarRow>();

    public DbSet<GrantRow> Grants => Set<GrantRow>();

    public DbSet<GroupGrantRow> GroupGrants => Set<GroupGrantRow>();

    public DbSet<AskRow> Asks => Set<AskRow>();

    public DbSet<OpenAskRow> OpenAsks => Set<OpenAskRow>();

    public DbSet<InvitationRow> Invitations => Set<InvitationRow>();

    public DbSet<LinkRow> Links => Set<LinkRow>();

    public DbSet<LinkHolderRow> LinkHolders => Set<LinkHolderRow>();

    public DbSet<NoticeboardRow> Noticeboards => Set<NoticeboardRow>();

    public DbSet<NoticeboardOpensRow> NoticeboardOpens => Set<NoticeboardOpensRow>();

    public DbSet<FeedRow> Feeds => Set<FeedRow>();

    public DbSet<DeviceRow> Devices => Set<DeviceRow>();

    public DbSet<ObjectNameRow> ObjectNames => Set<ObjectNameRow>();

    public DbSet<OwnAlarmsRow> OwnAlarms => Set<OwnAlarmsRow>();

    public DbSet<OwnPropertyRow> OwnProperties => Set<OwnPropertyRow>();

    public DbSet<LeftCalendarRow> LeftCalendars => Set<LeftCalendarRow>();

    public DbSet<ShortAddressRow> ShortAddresses => Set<ShortAddressRow>();

    public DbSet<WebSourceRow> WebSources => Set<WebSourceRow>();

    public DbSet<WebFileRow> WebFiles => Set<WebFileRow>();

    public DbSet<WebCalendarRow> WebCalendars => Set<WebCalendarRow>();

    public DbSet<LayerRow> Layers => Set<LayerRow>();

    public DbSet<SetRow> Sets => Set<SetRow>();

    public DbSet<EventRow> Events => Set<EventRow>();

    public DbSet<GivenRow> Given => Set<GivenRow>();

    public DbSet<AgreementRow> Agreements => Set<AgreementRow>();

    public DbSet<FineClashRow> FineClashes => Set<FineClashRow>();

    public DbSet<AnswerRow> Answers => Set<AnswerRow>();

    public DbSet<AskedRow> Asked => Set<AskedRow>();

    public DbSet<ProposalRow> Proposals => Set<ProposalRow>();

    public DbSet<ProposalAskedRow> ProposalAsked => Set<ProposalAskedRow>();

    public DbSet<SuitingsRow> Suitings => Set<SuitingsRow>();

    public DbSet<ReminderRow> Reminders => Set<ReminderRow>();

    public DbSet<ReminderClockRow> ReminderClock => Set<ReminderClockRow>();

    public DbSet<ChangeRow> Changes => Set<ChangeRow>();

    public DbSet<ConcernedRow> ConcernedByEvents => Set<ConcernedRow>();

    public DbSet<NoticeClockRow> NoticeClock => Set<NoticeClockRow>();

    public DbSet<SignInRow> SignIns => Set<SignInRow>();

    public DbSet<PasswordResetRow> PasswordResets => Set<PasswordResetRow>();

    public DbSet<AddressRow> Addresses => Set<AddressRow>();

    public DbSet<MailRow> Mails => Set<MailRow>();

    public DbSet<MailStopRow> MailStops => Set<MailStopRow>();

    /// <summary>
    /// Runs a command in one immediate write transaction (SQLite's BEGIN IMMEDIATE, so that reading and deciding happen
    /// under the write lock). Only <see cref="Outcome{T}.Done"/> is written, and of it no more mails than may go out.
    /// </summary>
    public async Task<Outcome<T>> Write<T>(Act act, Func<Task<Outcome<T>>> command, CancellationToken cancellationToken)
    {
        using var mine = await turn.Enter(cancellationToken);
        await using var transaction = await Database.BeginTransactionAsync(cancellationToken);
        Readers.Clear(); // whatever was read before the lock may not hold any more
        current = act;
        try
        {
            var outcome = await command();
            if (outcome is Outcome<T>.Done)
            {
                var mails = await this.WithoutStopped(cancellationToken);
                outcome = await this.WhyNotSend(act.Actor, mails, cancellationToken) ?? outcome;
                foreach (var mail in mails)
                {
                    (mail.CausedBy, mail.Rank) = (act.Actor.Value, MailRanks.Of(mails.Count));
                }
            }

            if (outcome is Outcome<T>.Done)
            {
                await SaveChangesAsync(cancellationToken);
                outcome = await ended.WhyNotIn(this, cancellationToken) ?? outcome;
            }

            if (outcome is Outcome<T>.Done)
            {
                await transaction.CommitAsync(CancellationToken.None);
                Tell();
                signal.Raise();
            }
            else
            {
                ChangeTracker.Clear();
            }

            return outcome;
        }
        finally
        {
            current = null;
            ended.Forget();
        }
    }

    /// <summary>Another store with the same clock, which wakes nobody.</summary>
    internal MortarDb Beside(DbContextOptions<MortarDb> options) =>
        new(options, clock, new ChangeSignal(), new WriteTurn());

    /// <summary>The version that a recorded row has once what is tracked so far is saved.</summary>
    internal int VersionOnceSaved(IRecorded row)
    {
        ChangeTracker.DetectChanges();
        return Entry(row).State is EntityState.Added or EntityState.Modified ? row.Version + 1 : row.Version;
    }

    /// <summary>
    /// Writes what the log does not keep, in one transaction, and has whoever waits for a commit look. What is there already
    /// is read in it: of two who find nothing at once, the second would add it twice.
    /// </summary>
    public async Task WriteUnlogged(Func<Task> command, CancellationToken cancellationToken)
    {
        using var mine = await turn.Enter(cancellationToken);
        await using var transaction = await Database.BeginTransactionAsync(cancellationToken);
        Readers.Clear(); // whatever was read before the lock may not hold any more
        await command();
        await this.WithoutStopped(cancellationToken);
        await SaveChangesAsync(cancellationToken);
        await transaction.CommitAsync(CancellationToken.None);
        Tell();
        signal.Raise();
    }

    /// <summary>Takes out what nobody sees any more, in one transaction; nobody is woken by it.</summary>
    internal async Task<int> Tidy(Func<Task<int>> command, CancellationToken cancellationToken)
    {
        using var mine = await turn.Enter(cancellationToken);
        await using var transaction = await Database.BeginTransactionAsync(cancellationToken);
        Readers.Clear(); // whatever was read before the lock may not hold any more
        var count = await command();
        await transaction.CommitAsync(CancellationToken.None);
        return count;
    }

    /// <inheritdoc />
    public override async Task<int> SaveChangesAsync(
        bool acceptAllChangesOnSuccess,
        CancellationToken cancellationToken = default
    )
    {
        await EndedGroups.KeepCalendars(this, cancellationToken);
        Record();
        KeepGiven();
        await KeepAddresses(cancellationToken);
        await CountRenamed(cancellationToken);
        foreach (var entry in ChangeTracker.Entries())
        {
            isAboutPeople |= IsAboutPeople(entry);
            if (IsAboutAccess(entry))
            {
                Readers.Clear();
            }
        }

        if (Database.CurrentTransaction is not null)
        {
            return await base.SaveChangesAsync(acceptAllChangesOnSuccess, cancellationToken);
        }

        using var mine = await turn.Enter(cancellationToken);
        var saved = await base.SaveChangesAsync(acceptAllChangesOnSuccess, cancellationToken);
        Tell();
        return saved;
    }

    private static bool IsAboutPeople(EntityEntry entry) =>
        entry is { Entity: PersonRow or SignInRow or Account, State: not EntityState.Unchanged };

    private static bool IsAboutAccess(EntityEntry entry) =>
        entry is { Entity: IRecorded row, State: not EntityState.Unchanged } && row.Subject.DecidesAccess();

    /// <summary>After a commit: what was kept of people does not hold any more.</summary>
    private void Tell()
    {
        if (isAboutPeople)
        {
            isAboutPeople = false;
            signal.CountWriteAboutPeople();
        }
    }

    /// <inheritdoc />
    public override int SaveChanges(bool acceptAllChangesOnSuccess) =>
        throw new NotSupportedException("Save asynchronously, inside Write.");

    /// <inheritdoc />
    protected override void OnModelCreating(ModelBuilder builder)
    {
        base.OnModelCreating(builder);
        builder.ApplyConfigurationsFromAssembly(typeof(MortarDb).Assembly);
    }

    /// <inheritdoc />
    protected override void ConfigureConventions(ModelConfigurationBuilder configurationBuilder) =>
        Conversions.Apply(configurationBuilder);

    private void Record()
    {
        KeepDeletedIn();
        ended.TakeNote(ChangeTracker);
        foreach (var entry in ChangeTracker.Entries<IRecorded>().ToList())
        {
            switch (entry.State)
            {
                case EntityState.Added:
                    entry.Entity.Version = 1;
                    Changes.Add(Concerning(ToRow(entry, before: null), null, entry.Entity));
                    break;
                case EntityState.Modified:
                    entry.Entity.Version = entry.OriginalValues.GetValue<int>(nameof(IRecorded.Version)) + 1;
                    var before = (IRecorded)entry.OriginalValues.ToObject();
                    var change = Concerning(ToRow(entry, StoredText.Of(before)), before, entry.Entity);
                    Changes.Add(change);
                    if (before is EventRow was && entry.Entity is EventRow now && was.CalendarId != now.CalendarId)
                    {
                        LeftCalendars.Add(
                            new LeftCalendarRow
                            {
                                CalendarId = was.CalendarId,
                                EventId = was.Id,
                                Change = change,
                            }
                        );
                    }

                    break;
                case EntityState.Deleted:
                    throw new NotSupportedException("Recorded rows are never deleted; let them vanish.");
            }
        }
    }

    /// <summary>Takes note of whom the change of an event may concern.</summary>
    private ChangeRow Concerning(ChangeRow change, IRecorded? before, IRecorded after)
    {
        if (
            after is EventRow now
            && (
                now.MayConcernOthersThan(change.Actor)
                || before is EventRow was && was.MayConcernOthersThan(change.Actor)
            )
        )
        {
            foreach (var person in NoticeRules.PeopleOf(There(before), There(now)).Where(one => one != change.Actor))
            {
                ConcernedByEvents.Add(new ConcernedRow { PersonId = person, Change = change });
            }
        }

        return change;

        static Event? There(IRecorded? state) => state is EventRow { DeletedAt: null } row ? row.ToCore() : null;
    }

    /// <summary>Keeps true which act put events in the bin; brought back to when they were there, it is the act of then.</summary>
    private void KeepDeletedIn()
    {
        foreach (var entry in ChangeTracker.Entries<EventRow>().ToList())
        {
            var row = entry.Entity;
            if (entry.State is EntityState.Modified && row.DeletedAt is null != row.DeletedIn is null)
            {
                row.DeletedIn = row.DeletedAt is null ? null : current?.Set;
            }
        }
    }

    /// <summary>Keeps the index of whom events are given to by themselves true.</summary>
    private void KeepGiven()
    {
        foreach (var entry in ChangeTracker.Entries<EventRow>().ToList())
        {
            var before = entry.State == EntityState.Modified ? Given(entry.OriginalValues) : [];
            var after = entry.State is EntityState.Modified or EntityState.Added ? Given(entry.CurrentValues) : before;
            foreach (var person in after.Except(before))
            {
                this.Given.Add(new GivenRow { PersonId = person, EventId = entry.Entity.Id });
            }

            this.Given.RemoveRange(
                before.Except(after).Select(person => new GivenRow { PersonId = person, EventId = entry.Entity.Id })
            );
        }

        static IReadOnlyCollection<PersonId> Given(PropertyValues values) =>
            [
                .. EventRow.ToAttendees(values.GetValue<string?>(nameof(EventRow.GivenTo))),
                .. EventRow.ToAttendees(values.GetValue<string?>(nameof(EventRow.Editors))),
            ];
    }

    /// <summary>Keeps true which short addresses lead where; what was given up is held for a while.</summary>
    private async Task KeepAddresses(CancellationToken cancellationToken)
    {
        foreach (var entry in ChangeTracker.Entries<IAddressed>().ToList())
        {
            if (entry.State is EntityState.Modified or EntityState.Added)
            {
                var before =
                    entry.State == EntityState.Added ? null : ((IAddressed)entry.OriginalValues.ToObject()).Leads;
                await this.Lead(entry.Entity, before, Now, cancellationToken);
            }
        }
    }

    /// <summary>What people are called stands in what devices read, and the log tells nothing of it.</summary>
    private async Task CountRenamed(CancellationToken cancellationToken)
    {
        foreach (
            var entry in ChangeTracker
                .Entries<PersonRow>()
                .Where(entry => entry.State == EntityState.Modified && entry.Property(one => one.Name).IsModified)
                .ToList()
        )
        {
            entry.Entity.Renamed = (await People.MaxAsync(one => (long?)one.Renamed, cancellationToken) ?? 0) + 1;
        }
    }

    private ChangeRow ToRow(EntityEntry<IRecorded> entry, string? before)
    {
        if (current is not { } act)
        {
            throw new InvalidOperationException("A recorded row is changed only inside Write, by somebody.");
        }

        return new ChangeRow
        {
            Set = act.Set,
            At = clock.GetCurrentInstant(),
            Actor = act.Actor,
            Undoes = act.Undoes,
            Subject = entry.Entity.Subject,
            SubjectId = entry.Entity.SubjectId,
            CalendarId = entry.Entity.OfCalendar,
            GroupId = entry.Entity.OfGroup,
            Concerns = entry.Entity.Concerns,
            Before = before,
            After = StoredText.Of(entry.Entity),
        };
    }
}
