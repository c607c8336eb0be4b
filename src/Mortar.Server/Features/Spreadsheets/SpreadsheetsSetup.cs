using System.Globalization;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Mvc;
using Mortar.Core.Spreadsheets;
using Mortar.Core.Words;
using Mortar.Formats.Spreadsheets;
using Mortar.Server.Hosting;
using Mortar.Server.Wire;
using NodaTime.Text;

namespace Mortar.Server.Features.Spreadsheets;

/// <summary>
/// GET /api/spreadsheets/{what}.{form}: events, the roster, hours, absences, the month grid of absences, or the table of access,
/// as far as one sees them, as a workbook or as comma-separated values.
/// </summary>
internal static class SpreadsheetsSetup
{
    public static void AddSpreadsheets(this IServiceCollection services) => services.AddScoped<SpreadsheetReading>();

    public static void MapSpreadsheets(this RouteGroupBuilder api) =>
        api.MapGet("/spreadsheets/{what}.{form}", Handle)
            .WithName("MakeSpreadsheet")
            .RequireRateLimiting(RateLimits.Making)
            .Produces(StatusCodes.Status200OK, contentType: Workbook.MediaType);

    private static async Task<Results<FileStreamHttpResult, ProblemHttpResult>> Handle(
        string what,
        string form,
        [FromQuery(Name = "from")] DateQuery first,
        [FromQuery(Name = "to")] DateQuery last,
        [FromQuery] GroupId? group,
        [FromQuery] Guid[]? calendars,
        Acting acting,
        SpreadsheetReading reading,
        FilesToGive files,
        CancellationToken cancellationToken
    )
    {
        if (SpreadsheetNames.Find(what) is not { } of || form is not ("xlsx" or "csv"))
        {
            return Problems.NotThere("spreadsheet");
        }

        var (from, to) = (first.Value, last.Value);
        if (Ranges.WhyNot(from, to, SpreadsheetNames.LongestDays(of)) is { } refusal)
        {
            return refusal;
        }

        var asked = new SpreadsheetAsk(
            of,
            from,
            to,
            group,
            calendars is { Length: > 0 } ? calendars.Select(id => new CalendarId(id)).ToHashSet() : null
        );
        var made = await reading.Read(acting.Person, asked, cancellationToken);
        if (made is Outcome<SpreadsheetOf>.Not not)
        {
            return Problems.Of(not.Why);
        }

        var spreadsheet = ((Outcome<SpreadsheetOf>.Done)made).Value;
        FileStream file;
        try
        {
            file = await files.Make(stream =>
                form == "csv"
                    ? CommaText.Write(stream, spreadsheet.Tables[0], cancellationToken)
                    : Workbook.Write(stream, spreadsheet.Tables, cancellationToken)
            );
        }
        catch (FileTooLargeException)
        {
            return Problems.Unfit([
                new FieldProblem(
                    "to",
                    "That would be a file of more than 256 MB. Ask for fewer days, or fewer calendars."
                ),
            ]);
        }

        return TypedResults.Stream(
            file,
            form == "csv" ? $"{CommaText.MediaType}; charset=utf-8" : Workbook.MediaType,
            FilesToGive.Name(
                string.Create(
                    CultureInfo.InvariantCulture,
                    $"{spreadsheet.Of} {what} {LocalDatePattern.Iso.Format(from)} {LocalDatePattern.Iso.Format(to)}"
                ),
                $".{form}"
            )
        );
    }
}
