using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;
using Mortar.Core.Access;
using Mortar.Core.Time;
using Mortar.Core.Words;
using Mortar.Data.Access;
using Mortar.Data.Events;
using Mortar.Data.Store;
using Mortar.Formats.ICalendar;
using Mortar.Formats.Spreadsheets;
using Mortar.Server.Hosting;
using NodaTime;

namespace Mortar.Server.Features.Imports;

/// <summary>/api/calendars/{id}/imports: reading a file, seeing what is in it, writing it, stopping.</summary>
internal static class ImportsSetup
{
    /// <summary>The largest file that is taken.</summary>
    internal const int LargestFile = 20 * 1024 * 1024;

    /// <summary>A file that is too large is read to this length and thrown away, so that the answer arrives; beyond it the line is cut.</summary>
    private const int LargestRead = 64 * 1024 * 1024;

    private const int MostFindings = 100;

    /// <param name="Series">How many of the events are series.</param>
    /// <param name="First">The first day; <c>null</c> where there are no events.</param>
    /// <param name="Last">The last day; <c>null</c> where something goes on for ever.</param>
    /// <param name="Same">How many are in the calendar already, just as in the file.</param>
    /// <param name="Different">How many are in the calendar already and differ.</param>
    /// <param name="LeftOut">How many events cannot be taken.</param>
    /// <param name="Findings">What was not taken as it stands, at most 100.</param>
    /// <param name="Dealt">How many events have been dealt with while it is written.</param>
    /// <param name="Written">How many were written, once it is done.</param>
    /// <param name="Problem">Why it failed.</param>
    /// <param name="Sheet">How a spreadsheet is read, in the answer to bringing it; <c>null</c> for a calendar file.</param>
    internal sealed record Body(
        Guid Id,
        ImportState State,
        string? Name,
        int Events,
        int Series,
        LocalDate? First,
        LocalDate? Last,
        int Same,
        int Different,
        int LeftOut,
        IReadOnlyList<Finding> Findings,
        int FindingsInAll,
        int Dealt,
        int? Written,
        string? Problem,
        SheetImport.Body? Sheet = null
    );

    internal sealed record OrderBody(KnownEvents Known);

    public static void AddImports(this IServiceCollection services) =>
        services.AddSingleton<ImportDesk>().AddScoped<ImportCommands>().AddHostedService<ImportWriter>();

    public static void MapImports(this RouteGroupBuilder api)
    {
        var imports = api.MapGroup("/calendars/{calendarId:guid}/imports/{importId:guid}");
        imports
            .MapPut("/", Bring)
            .WithName("BringFile")
            .RequireRateLimiting(RateLimits.Searching)
            .Accepts<IFormFile>("text/calendar", CommaText.MediaType, Workbook.MediaType)
            .WithMetadata(new RequestSize(LargestRead));
        imports.MapGet("/", Read).WithName("ReadImport");
        imports.MapPost("/write", Write).WithName("WriteImport");
        imports.MapDelete("/", Stop).WithName("StopImport");
    }

    private static async Task<Results<Ok<Body>, ProblemHttpResult>> Bring(
        CalendarId calendarId,
        Guid importId,
        [FromQuery] int? head,
        [FromQuery] string? columns,
        [FromQuery] string? dates,
        HttpContext context,
        Acting acting,
        MortarDb db,
        ImportDesk desk,
        ImportCommands commands,
        ZoneClock zones,
        IClock clock,
        CancellationToken cancellationToken
    )
    {
        if (await WhyNotAdd(db, acting.Person, calendarId, cancellationToken) is { } refusal)
        {
            return refusal;
        }

        var bytes = await ReadUpTo(context.Request.Body, LargestFile, cancellationToken);
        if (bytes is null)
        {
            return Problems.Of(
                StatusCodes.Status413PayloadTooLarge,
                "file-too-large",
                FormattableString.Invariant(
                    $"The file is larger than {LargestFile / 1024 / 1024} MB. Export a shorter stretch of time, or split it, and import the parts one after the other."
                )
            );
        }

        var row = await db.Calendars.FindAsync([calendarId], cancellationToken);
        var sheet = default(SheetImport.Made);
        if (SheetFile.IsWorkbook(bytes) || IsText(context.Request.ContentType))
        {
            var wish = SheetImport.Wish(head, columns, dates);
            if (!wish.IsFit)
            {
                return Problems.Unfit(wish.Problems);
            }

            (sheet, var whyNot) = await SheetImport.Read(bytes, wish.Value, row!.Zone, zones, cancellationToken);
            if (sheet is null)
            {
                return Problems.Of(StatusCodes.Status422UnprocessableEntity, "not-a-spreadsheet", whyNot!);
            }

            bytes = sheet.Bytes;
        }

        switch (CalendarFile.Read(bytes, row!.Zone, zones))
        {
            case CalendarFileReading.NotACalendar not:
                return Problems.Of(StatusCodes.Status422UnprocessableEntity, "not-a-calendar", not.Sentence);
            case CalendarFileReading.Understood understood:
                if (!desk.HasRoomFor(bytes.Length))
                {
                    return Problems.TooOften(
                        "Many files wait to be imported just now. Try again in an hour.",
                        Duration.FromHours(1)
                    );
                }

                var known = await commands.Known(
                    acting.Person,
                    calendarId,
                    StagedImport.Events(understood),
                    cancellationToken
                );
                var import = new StagedImport(
                    importId,
                    acting.Person,
                    calendarId,
                    await desk.Keep(bytes, cancellationToken),
                    clock.GetCurrentInstant()
                )
                {
                    Bytes = bytes.Length,
                    Name = understood.Name,
                    Summary = FileSummary.Of(understood, zones),
                    Findings = [.. (sheet?.Findings ?? []).Concat(understood.Findings).Take(MostFindings)],
                    FindingsInAll = understood.FindingsInAll + (sheet?.Findings.Count ?? 0),
                    LeftOut = understood.LeftOut + (sheet?.Findings.Count(finding => finding.LeftOut) ?? 0),
                    Known = known,
                };
                desk.Add(import);
                return TypedResults.Ok(Describe(import) with { Sheet = sheet?.Body });
            default:
                throw new InvalidOperationException();
        }
    }

    private static async Task<Results<Ok<Body>, ProblemHttpResult>> Read(
        CalendarId calendarId,
        Guid importId,
        Acting acting,
        MortarDb db,
        ImportDesk desk,
        CancellationToken cancellationToken
    )
    {
        return await WhyNotAdd(db, acting.Person, calendarId, cancellationToken) is { } refusal ? refusal
            : desk.Find(importId, calendarId, acting.Person) is { } import ? TypedResults.Ok(Describe(import))
            : Problems.NotThere("import");
    }

    private static async Task<Results<Accepted, ProblemHttpResult>> Write(
        CalendarId calendarId,
        Guid importId,
        OrderBody body,
        Acting acting,
        MortarDb db,
        ImportDesk desk,
        CancellationToken cancellationToken
    )
    {
        if (await WhyNotAdd(db, acting.Person, calendarId, cancellationToken) is { } refusal)
        {
            return refusal;
        }

        if (desk.Find(importId, calendarId, acting.Person) is not { } import)
        {
            return Problems.NotThere("import");
        }

        return desk.Order(new ImportOrder(import, acting.Act, body.Known))
            ? TypedResults.Accepted((string?)null)
            : Problems.Of(
                StatusCodes.Status409Conflict,
                "import-under-way",
                "This import has been started already, or too many others wait. Look at how it stands."
            );
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> Stop(
        CalendarId calendarId,
        Guid importId,
        Acting acting,
        MortarDb db,
        ImportDesk desk,
        CancellationToken cancellationToken
    )
    {
        if (await WhyNotAdd(db, acting.Person, calendarId, cancellationToken) is { } refusal)
        {
            return refusal;
        }

        if (desk.Find(importId, calendarId, acting.Person) is not { } import)
        {
            return Problems.NotThere("import");
        }

        import.Stop();
        return TypedResults.NoContent();
    }

    /// <summary>Whether values parted by commas are brought; a workbook is known by itself.</summary>
    private static bool IsText(string? contentType) =>
        contentType?.StartsWith(CommaText.MediaType, StringComparison.OrdinalIgnoreCase) == true;

    private static Body Describe(StagedImport import)
    {
        var summary = import.Summary;
        var known = import.State == ImportState.Ready ? import.Known : new KnownCount(0, 0);
        return new Body(
            import.Id,
            import.State,
            import.Name,
            summary.Events,
            summary.Series,
            summary.First,
            summary.Last,
            known.Same,
            known.Different,
            import.LeftOut,
            import.Findings,
            import.FindingsInAll,
            import.Written,
            import.Outcome is Outcome<int>.Done done ? done.Value : null,
            import.State == ImportState.Failed ? Why(import.Outcome) : null
        );
    }

    private static string Why(Outcome<int>? outcome) =>
        outcome is null
            ? "It could not be written, and nothing of it was. Try again."
            : Problems.Of(outcome.WhyNot).ProblemDetails.Detail ?? string.Empty;

    private static async Task<ProblemHttpResult?> WhyNotAdd(
        MortarDb db,
        PersonId person,
        CalendarId calendar,
        CancellationToken cancellationToken
    ) =>
        AccessRules
            .WhyNotAdd(
                (await db.StandingOf(person, calendar, cancellationToken)).Role,
                await db.Calendars.AnyAsync(row => row.Id == calendar && row.FromWeb, cancellationToken)
            )
            .Problem();

    /// <summary>The body, or <c>null</c> where it is longer.</summary>
    private static async Task<byte[]?> ReadUpTo(Stream body, int limit, CancellationToken cancellationToken)
    {
        using var kept = new MemoryStream();
        var buffer = new byte[81_920];
        var length = 0L;
        while (await body.ReadAsync(buffer, cancellationToken) is var read and > 0)
        {
            length += read;
            if (length <= limit)
            {
                kept.Write(buffer, 0, read);
            }
        }

        return length <= limit ? kept.ToArray() : null;
    }

    /// <summary>Lifts the web server's own limit for the one route that takes files.</summary>
    private sealed class RequestSize(long limit) : Microsoft.AspNetCore.Http.Metadata.IRequestSizeLimitMetadata
    {
        public long? MaxRequestBodySize => limit;
    }
}
