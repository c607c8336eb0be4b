using Microsoft.AspNetCore.Http.HttpResults;
using Mortar.Core.Undo;
using Mortar.Core.Words;
using Mortar.Data.Undo;
using Mortar.Server.Hosting;

namespace Mortar.Server.Features.Undo;

/// <summary>
/// POST /api/changes/{set}/undo: takes back everything one act changed, where it is one's own, or one sees it and may do the
/// same now.
/// </summary>
internal static class UndoSetup
{
    /// <param name="Returned">How many things went back to their state before.</param>
    /// <param name="Left">How many were changed since and stay as they are.</param>
    internal sealed record Body(int Returned, int Left);

    public static void AddUndo(this IServiceCollection services) =>
        services.AddScoped<UndoCommands>().AddScoped<MomentCommands>();

    public static void MapUndo(this RouteGroupBuilder api)
    {
        api.MapPost("/changes/{set:guid}/undo", Undo).WithName("UndoChange");
        BringBackToMoment.Map(api);
    }

    /// <param name="fits">Whether, where something was changed since, what still fits is taken back all the same.</param>
    /// <param name="calendar">Only what it did in this calendar.</param>
    private static Task<Results<Ok<Body>, ProblemHttpResult>> Undo(
        ChangeSetId set,
        Acting acting,
        UndoCommands undo,
        CancellationToken cancellationToken,
        bool fits = false,
        CalendarId? calendar = null
    ) =>
        undo.Undo(
                acting.Act,
                set,
                new UndoWish(fits ? UndoReach.WhatFits : UndoReach.Whole, calendar),
                cancellationToken
            )
            .Answer(undone => Task.FromResult(new Body(undone.Returned, undone.Left)));
}
