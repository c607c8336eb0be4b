using System.Text.Encodings.Web;
using System.Text.Unicode;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.ResponseCompression;
using Microsoft.EntityFrameworkCore;
using Mortar.Core.Access;
using Mortar.Core.Calendars;
using Mortar.Core.Letters;
using Mortar.Core.Noticeboards;
using Mortar.Core.Time;
using Mortar.Core.Words;
using Mortar.Data.Access;
using Mortar.Data.Groups;
using Mortar.Data.Noticeboards;
using Mortar.Data.Store;
using Mortar.Server.Hosting;
using NodaTime;

namespace Mortar.Server.Features.Noticeboards;

/// <summary>/api/noticeboards and /api/groups/{id}/noticeboards: made, tried, opened, paused and ended by coordinators.</summary>
internal static class NoticeboardsSetup
{
    /// <summary>The last days of which it is told how often it was opened.</summary>
    private const int DaysOfOpens = 28;

    internal sealed record LayerBody(Guid CalendarId, Role Role);

    /// <param name="GroupId">The group on whose pages it is kept.</param>
    /// <param name="Name">The name in its address; <c>null</c> for one that nobody guesses.</param>
    /// <param name="Views">Its views; the first opens.</param>
    /// <param name="Sites">The websites that may show it, where some are named.</param>
    internal sealed record Body(
        Guid GroupId,
        string? Title,
        string? Words,
        string Zone,
        string? Name,
        IReadOnlyList<LayerBody> Layers,
        IReadOnlyList<BoardView> Views,
        BoardTheme Theme,
        Hue Accent,
        int DaysAhead,
        bool ShowsPlaces,
        bool ShowsPeople,
        bool ShowsZone,
        bool OffersEvents,
        bool OffersFeed,
        bool OffersPrint,
        bool Listed,
        BoardFrames Frames,
        IReadOnlyList<string> Sites
    )
    {
        public Noticeboard ToCore() =>
            new(
                Title ?? string.Empty,
                Words ?? string.Empty,
                Zone,
                [.. Layers.Select(layer => new BoardLayer(new CalendarId(layer.CalendarId), layer.Role))]
            )
            {
                Views = [.. Views],
                Theme = Theme,
                Accent = Accent,
                DaysAhead = DaysAhead,
                ShowsPlaces = ShowsPlaces,
                ShowsPeople = ShowsPeople,
                ShowsZone = ShowsZone,
                OffersEvents = OffersEvents,
                OffersFeed = OffersFeed,
                OffersPrint = OffersPrint,
                Listed = Listed,
                Frames = Frames,
                Sites = [.. Sites],
            };

        public static Body Of(GroupId group, string address, Noticeboard board) =>
            new(
                group.Value,
                board.Title,
                board.Words,
                board.Zone,
                ShortAddress.IsDrawn(address) ? null : address,
                [.. board.Layers.Select(layer => new LayerBody(layer.CalendarId.Value, layer.Role))],
                board.Views,
                board.Theme,
                board.Accent,
                board.DaysAhead,
                board.ShowsPlaces,
                board.ShowsPeople,
                board.ShowsZone,
                board.OffersEvents,
                board.OffersFeed,
                board.OffersPrint,
                board.Listed,
                board.Frames,
                board.Sites
            );
    }

    /// <param name="IsRead">Whether the world reads it now.</param>
    /// <param name="MayChange">Whether the reader may change, pause and end it; else they may take their calendars off it.</param>
    /// <param name="Keeper">The name of who keeps it.</param>
    /// <param name="Url">Where the world finds it.</param>
    /// <param name="Sentence">What the world sees.</param>
    /// <param name="Lost">The calendars on it that its keeper does not coordinate any more, or that are in the bin.</param>
    /// <param name="Opens">How often it was opened on each of the last days, the newest last.</param>
    internal sealed record NoticeboardBody(
        Guid NoticeboardId,
        int Version,
        BoardState State,
        bool IsRead,
        bool MayChange,
        string Keeper,
        string Url,
        string Sentence,
        IReadOnlyList<Guid> Lost,
        IReadOnlyList<int> Opens,
        Body Settings
    );

    /// <param name="NoticeboardId">Which one it would be.</param>
    internal sealed record TrialBody(Guid NoticeboardId, Body Settings, BoardView? View = null);

    /// <param name="Html">The page as the world would get it.</param>
    /// <param name="Sentence">What the world would see.</param>
    /// <param name="Counted">How much: "84 events, 3 with notes".</param>
    /// <param name="WithNotes">How many events tell notes.</param>
    /// <param name="WithPeople">How many events name people.</param>
    internal sealed record TriedBody(string Html, string Sentence, string Counted, int WithNotes, int WithPeople);

    /// <summary>A noticeboard that is open, as the members of its group are told of it.</summary>
    internal sealed record OpenBody(string Title, string Url);

    public static void AddNoticeboards(this IServiceCollection services)
    {
        services.AddScoped<NoticeboardCommands>().AddScoped<BoardReading>();

        // Letters of any script as they are: escaped one by one they would be seven bytes each. What has a meaning in HTML still is.
        services.AddSingleton(HtmlEncoder.Create(UnicodeRanges.All));
        services.AddSingleton<BoardOpens>().AddHostedService(all => all.GetRequiredService<BoardOpens>());
        services.AddHostedService<NoticeboardWatch>();

        // Of noticeboards, which tell the same to everybody (BoardPages), and of what AnswerSizes names; of nothing else.
        services.AddResponseCompression(options =>
        {
            options.EnableForHttps = true;
            options.Providers.Add<BrotliCompressionProvider>();
            options.Providers.Add<GzipCompressionProvider>();
            options.MimeTypes = ["text/html", "text/calendar", "application/json"];
        });
    }

    public static void MapNoticeboards(this RouteGroupBuilder api)
    {
        api.MapGet("/groups/{groupId:guid}/noticeboards", List).WithName("ListNoticeboards");
        NoticeboardAddresses.Map(api);
        TryNoticeboard.Map(api);
        var board = api.MapGroup("/noticeboards/{noticeboardId:guid}");
        board.MapGet("/", Read).WithName("ReadNoticeboard");
        board.MapPut("/", Put).WithName("PutNoticeboard");
        board.MapPost("/open", Open).WithName("OpenNoticeboard");
        board.MapPost("/pause", Pause).WithName("PauseNoticeboard");
        board.MapDelete("/", End).WithName("EndNoticeboard");
        board.MapDelete("/calendars/{calendarId:guid}", TakeOff).WithName("TakeOffNoticeboard");
    }

    private static async Task<Results<Ok<IReadOnlyList<NoticeboardBody>>, ProblemHttpResult>> List(
        GroupId groupId,
        Acting acting,
        MortarDb db,
        IServiceProvider services,
        CancellationToken cancellationToken
    )
    {
        if (!await db.PlaceIn(groupId, acting.Person).AnyAsync(cancellationToken))
        {
            return Problems.NotThere("group");
        }

        var told = new List<NoticeboardBody>();
        foreach (var row in await db.NoticeboardsOf(acting.Person, groupId, cancellationToken))
        {
            told.Add(await Told(row, acting.Person, services, cancellationToken));
        }

        return TypedResults.Ok<IReadOnlyList<NoticeboardBody>>(told);
    }

    private static async Task<Results<Ok<NoticeboardBody>, ProblemHttpResult>> Read(
        NoticeboardId noticeboardId,
        Acting acting,
        MortarDb db,
        IServiceProvider services,
        CancellationToken cancellationToken
    ) =>
        await db.NoticeboardFor(acting.Person, noticeboardId, cancellationToken) is { } row
            ? TypedResults.Ok(await Told(row, acting.Person, services, cancellationToken))
            : Problems.NotThere("noticeboard");

    private static Task<Results<Ok<NoticeboardBody>, ProblemHttpResult>> Put(
        NoticeboardId noticeboardId,
        Body body,
        [FromHeader(Name = "If-Match")] string? version,
        Acting acting,
        NoticeboardCommands noticeboards,
        IServiceProvider services,
        CancellationToken cancellationToken
    ) =>
        noticeboards
            .Put(
                acting.Act,
                noticeboardId,
                Versions.Read(version),
                new NoticeboardWish(new GroupId(body.GroupId), body.ToCore(), body.Name),
                cancellationToken
            )
            .Answer(row => Told(row, acting.Person, services, cancellationToken));

    private static Task<Results<Ok<NoticeboardBody>, ProblemHttpResult>> Open(
        NoticeboardId noticeboardId,
        Acting acting,
        NoticeboardCommands noticeboards,
        IServiceProvider services,
        CancellationToken cancellationToken
    ) =>
        noticeboards
            .Open(acting.Act, noticeboardId, cancellationToken)
            .Answer(row => Told(row, acting.Person, services, cancellationToken));

    private static Task<Results<Ok<NoticeboardBody>, ProblemHttpResult>> Pause(
        NoticeboardId noticeboardId,
        Acting acting,
        NoticeboardCommands noticeboards,
        IServiceProvider services,
        CancellationToken cancellationToken
    ) =>
        noticeboards
            .Pause(acting.Act, noticeboardId, cancellationToken)
            .Answer(row => Told(row, acting.Person, services, cancellationToken));

    private static Task<Results<NoContent, ProblemHttpResult>> End(
        NoticeboardId noticeboardId,
        Acting acting,
        NoticeboardCommands noticeboards,
        CancellationToken cancellationToken
    ) => noticeboards.End(acting.Act, noticeboardId, cancellationToken).Answer();

    private static Task<Results<NoContent, ProblemHttpResult>> TakeOff(
        NoticeboardId noticeboardId,
        CalendarId calendarId,
        Acting acting,
        NoticeboardCommands noticeboards,
        CancellationToken cancellationToken
    ) => noticeboards.TakeOff(acting.Act, noticeboardId, calendarId, cancellationToken).Answer();

    private static async Task<NoticeboardBody> Told(
        NoticeboardRow row,
        PersonId person,
        IServiceProvider services,
        CancellationToken cancellationToken
    )
    {
        var db = services.GetRequiredService<MortarDb>();
        var board = row.ToCore();
        var calendars = await db.CalendarsOf(board, cancellationToken);
        var me = await db.ReaderOf(person, cancellationToken);

        // Whoever keeps it and lost a calendar of it is not told what that is called by now.
        var isRead = await db.IsRead(row, cancellationToken);
        var url = services.GetRequiredService<PublicLinks>().Noticeboard(row.Address);
        return new NoticeboardBody(
            row.Id.Value,
            row.Version,
            row.State,
            isRead,
            NoticeboardRules.MayTouch(row.Keeper == person, row.Calendars.Select(id => new CalendarId(id)), me),
            await db.People.Where(one => one.Id == row.Keeper).Select(one => one.Name).SingleAsync(cancellationToken),
            url,
            BoardSentence.For(
                board,
                calendars
                    .Where(one => isRead || me.RoleOn(one.Key) >= Role.Times)
                    .ToDictionary(one => one.Key, one => one.Value.Name)
            ),
            [.. (await db.LostOn(row, cancellationToken)).Select(id => id.Value)],
            await db.OpensOf(
                row.Id,
                services
                    .GetRequiredService<IClock>()
                    .GetCurrentInstant()
                    .InZone(services.GetRequiredService<ZoneClock>().Zone(board.Zone))
                    .Date,
                DaysOfOpens,
                cancellationToken
            ),
            Body.Of(row.GroupId, row.Address, board)
        );
    }
}
