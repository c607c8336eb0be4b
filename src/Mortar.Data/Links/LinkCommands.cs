using Microsoft.EntityFrameworkCore;
using Mortar.Core.Access;
using Mortar.Core.Changes;
using Mortar.Core.Links;
using Mortar.Core.Time;
using Mortar.Core.Words;
using Mortar.Data.Access;
using Mortar.Data.Store;
using NodaTime;

namespace Mortar.Data.Links;

/// <summary>What a link is to be.</summary>
/// <param name="EventId">The one event it gives out; <c>null</c> for the whole calendar.</param>
/// <param name="LastDay">The last day it leads somewhere, on the calendar's clock.</param>
public sealed record LinkWish(EventId? EventId, string? Name, Role Role, int? MostUses, LocalDate? LastDay);

/// <summary>A link and its secret, which is told this once.</summary>
/// <param name="Secret"><c>null</c> where the link was there already.</param>
public sealed record MadeLink(LinkRow Row, string? Secret);

/// <summary>Makes, changes and ends links, and puts calendars on walls by them.</summary>
public sealed class LinkCommands(MortarDb db, ZoneClock zones)
{
    /// <summary>Makes a link where there is none of that id, and changes its terms otherwise.</summary>
    public Task<Outcome<MadeLink>> Put(
        Act act,
        CalendarId calendarId,
        LinkId id,
        LinkWish wish,
        CancellationToken cancellationToken
    ) =>
        db.Write<MadeLink>(
            act,
            async () =>
            {
                var giver = await db.GiverOf(act.Actor, calendarId, zones, cancellationToken);
                if (giver.WhyNotCoordinate is { } refusal)
                {
                    return refusal;
                }

                var known = await db.Links.FirstOrDefaultAsync(link => link.Id == id, cancellationToken);
                if (known is not null && (known.CalendarId != calendarId || known.EndedAt is not null))
                {
                    return new Refusal.NotThere("link");
                }

                var eventId = known is null ? wish.EventId : known.EventId;
                if (eventId is { } one && !await IsIn(calendarId, one, cancellationToken))
                {
                    return new Refusal.NotThere("event");
                }

                var (endsAt, found) = AccessEnd.Check(wish.LastDay, giver.Now, giver.Zone);
                var check = LinkTerms.Check(
                    new LinkTerms(wish.Name ?? string.Empty, wish.Role, wish.MostUses, endsAt),
                    eventId is not null
                );
                if (check.And(found).WhyNot is { } unfit)
                {
                    return unfit;
                }

                var terms = check.Value;

                if (giver.WhyNot(new Grant(terms.Role, Way.Link, terms.EndsAt)) is { } beyond)
                {
                    return beyond;
                }

                if (known is not null)
                {
                    known.Apply(terms);
                    return new MadeLink(known, null);
                }

                var secret = LinkSecret.New();
                var row = new LinkRow
                {
                    Id = id,
                    CalendarId = calendarId,
                    EventId = eventId,
                    Role = terms.Role,
                    Hash = LinkSecret.HashOf(secret),
                    MadeBy = act.Actor,
                };
                row.Apply(terms);
                db.Links.Add(row);
                return new MadeLink(row, secret);
            },
            cancellationToken
        );

    /// <summary>Gives a link a new secret: the old one leads nowhere, and who has the calendar by it keeps it.</summary>
    public Task<Outcome<MadeLink>> Renew(
        Act act,
        CalendarId calendarId,
        LinkId id,
        CancellationToken cancellationToken
    ) =>
        Coordinated(
            act,
            calendarId,
            id,
            link =>
            {
                var secret = LinkSecret.New();
                (link.Hash, link.Uses) = (LinkSecret.HashOf(secret), 0);
                return new MadeLink(link, secret);
            },
            cancellationToken
        );

    /// <summary>Ends a link, and with it the access of everybody who has the calendar by it alone.</summary>
    public Task<Outcome<MadeLink>> End(
        Act act,
        CalendarId calendarId,
        LinkId id,
        CancellationToken cancellationToken
    ) =>
        Coordinated(
            act,
            calendarId,
            id,
            link =>
            {
                link.EndedAt = db.Now;
                return new MadeLink(link, null);
            },
            cancellationToken
        );

    /// <summary>Puts a calendar on one's wall by its link. Doing so twice counts once; the last use is given once, however many come for it.</summary>
    public Task<Outcome<LinkRow>> Use(Act act, string secret, CancellationToken cancellationToken) =>
        db.Write(
            act,
            async () =>
                await BySecret(db, secret, cancellationToken) is { EventId: null } link
                    ? await Take(act.Actor, link, cancellationToken)
                    : new Refusal.NotThere("link"),
            cancellationToken
        );

    /// <summary>The link by which somebody without an account makes one, where it lets them; part of a write that is under way.</summary>
    public async Task<Outcome<LinkRow>> ForAccount(string secret, CancellationToken cancellationToken)
    {
        if (await BySecret(db, secret, cancellationToken) is not { } link)
        {
            return new Refusal.NotThere("link");
        }

        var since = db.Now - Duration.FromDays(1);
        var today = await db.Changes.CountAsync(
            change =>
                change.Subject == Subject.LinkHolder
                && change.CalendarId == link.CalendarId
                && change.Before == null
                && change.At > since,
            cancellationToken
        );
        return link.Terms().WhyNotMakeAccount(link.EventId is not null, today) is { } refusal ? refusal : link;
    }

    /// <summary>Puts the calendar of a link on somebody's wall; part of a write that is under way.</summary>
    public async Task<Outcome<LinkRow>> Take(PersonId person, LinkRow link, CancellationToken cancellationToken)
    {
        var holder = await db.LinkHolders.FirstOrDefaultAsync(
            one => one.LinkId == link.Id && one.PersonId == person,
            cancellationToken
        );
        if (holder is { LeftAt: null })
        {
            return link;
        }

        if (!link.Terms().HasUsesLeft(link.Uses))
        {
            return new Refusal.AgainstRule(
                "used-up",
                "As many people as this link is for have used it. Ask whoever gave it to you for another."
            );
        }

        link.Uses++;
        if (holder is null)
        {
            db.LinkHolders.Add(
                new LinkHolderRow
                {
                    LinkId = link.Id,
                    CalendarId = link.CalendarId,
                    PersonId = person,
                }
            );
        }
        else
        {
            holder.LeftAt = null;
        }

        return link;
    }

    /// <summary>The link that a secret opens; <c>null</c> where it opens none, or none that leads anywhere any more.</summary>
    public static async Task<LinkRow?> BySecret(MortarDb db, string secret, CancellationToken cancellationToken)
    {
        var hash = LinkSecret.HashOf(secret);
        var link = await db.LeadingLinks().FirstOrDefaultAsync(row => row.Hash == hash, cancellationToken);
        return link is not null && link.Terms().IsOpen(link.EndedAt, db.Now) ? link : null;
    }

    private Task<bool> IsIn(CalendarId calendarId, EventId id, CancellationToken cancellationToken) =>
        db.Events.AnyAsync(
            row => row.Id == id && row.CalendarId == calendarId && row.DeletedAt == null && !row.Private,
            cancellationToken
        );

    private Task<Outcome<MadeLink>> Coordinated(
        Act act,
        CalendarId calendarId,
        LinkId id,
        Func<LinkRow, MadeLink> change,
        CancellationToken cancellationToken
    ) =>
        db.Write<MadeLink>(
            act,
            async () =>
                await db.WhyNotCoordinate(act.Actor, calendarId, cancellationToken) is { } no ? no
                : await db.Links.FirstOrDefaultAsync(
                    link => link.Id == id && link.CalendarId == calendarId && link.EndedAt == null,
                    cancellationToken
                )
                    is { } link
                    ? change(link)
                : new Refusal.NotThere("link"),
            cancellationToken
        );
}
